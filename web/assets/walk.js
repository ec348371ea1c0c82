// walk.js: the count of all rows as a component of the page. What is counted is safe on the phone at every tap.
import { expectedInAll, expectedOn, fieldsOf, morePlants, newCount, spoiledOf, stepped, tapped, totalOf, wrongWith } from './count.js'
import { dropDraft, keepDraft, readDraft } from './draft.js'
import { newID, openQueue } from './queue.js'
import { beside, localMinute, nextToCount, placeOf } from './route.js'
import { newSender } from './send.js'
import { refusalWords, waitingWords } from './waiting.js'

const wordsKey = 'dew-count:words'
const settled = 700 // ms after a count in which the button takes no press
const again = 20_000 // ms after which what waits is tried again
const byMany = 5

const noRow = { id: '', name: '', form: '', plants: 0, sample: 0, hint: '', expected: [], window: [], calls: [], wag: false, waiting: '' }

export function newWalk() {
  let queue
  let send = () => {}
  return {
    data: null,
    loading: true,
    rows: [],
    rungs: [],
    row: noRow,
    count: newCount(noRow, []),
    seen: { spoiled: '', cause: '', note: '' },
    advice: '',
    noted: '',
    asked: false, // whether the button says that the row is empty
    busy: false,
    many: false,
    use: 0, // whom the stem in the hand is for, by its place among the row's calls
    withWords: localStorage.getItem(wordsKey) !== 'hidden',
    last: null, // the count that was made last, to be corrected
    waiting: '',
    mustSignIn: false,
    refused: [],

    async init() {
      this.data = JSON.parse(document.getElementById('walk-data').textContent)
      this.rungs = this.data.rungs
      this.rows = this.data.rows
      const wanted = new URLSearchParams(location.search).get('row')
      this.show(this.rows.find((r) => r.id === wanted) ?? nextToCount(this.rows, this.rows.at(-1)))
      queue = await openQueue()
      send = newSender(queue, (state, records) => this.told(state, records))
      addEventListener('online', send)
      document.addEventListener('visibilitychange', () => { if (!document.hidden) send() })
      setInterval(send, again)
      this.loading = false
      send()
    },

    // What the page says.
    now() { return this.data.now || localMinute(new Date(), this.data.zone) },
    today() { return this.now().slice(0, 10) },
    get hint() { return this.noted || placeOf(this.rows, this.row) + this.row.hint },
    get total() { return `${totalOf(this.count)} counted, ${expectedInAll(this.count, this.row)} expected` },
    get saving() { return this.asked ? 'Nothing in bud: record that' : 'Record, next row' },
    get isFaulty() { return this.advice !== '' },
    get faultClass() { return this.isFaulty ? 'd-block' : '' },
    get hasNoTaps() { return this.count.taps.length === 0 },
    get hasNoWaiting() { return this.row.waiting === '' },
    get isNotWagged() { return !this.row.wag },
    get wordsClass() { return this.withWords ? '' : 'without-words' },
    get lastHref() { return this.last ? `/counts/${encodeURIComponent(this.last.id)}` : '/count' },
    get lastWords() { return this.last ? `Correct the count of ${this.last.name}` : '' },
    get hasNoLast() { return !this.last || this.last.waits },
    get words() { return this.byRung((rung, k) => this.data.words[this.row.form]?.[k]) },
    get expected() { return this.byRung((rung, k) => `expected ${expectedOn(this.count, this.row, k)}`) },
    get labels() { return this.byRung((rung) => `One more ${rung}: ${this.words[rung]}`) },
    get drawings() { return this.byRung((rung) => `${this.data.drawings[this.row.form]}#${rung}`) },
    get windows() { return this.byRung((rung) => (this.row.window.includes(rung) ? 'in-window' : '')) },
    get calls() { return this.byRung((rung, k) => this.call?.rungs[k] ?? '') },
    get call() { return this.row.calls[this.use] ?? this.row.calls[0] },
    get fails() { return this.call?.fails ?? [] },
    get isNoFirm() { return this.byRung((rung) => !this.row.window.includes(rung)) },
    byRung(of) { return Object.fromEntries(this.rungs.map((rung, k) => [rung, of(rung, k)])) },

    // The row that is counted.
    show(row) {
      this.row = row
      this.asked = false
      this.advice = ''
      this.noted = ''
      this.count = newCount(row, this.rungs, readDraft(row.id, this.today()))
      history.replaceState(null, '', `?row=${encodeURIComponent(row.id)}`)
    },
    // optionLabel ticks off in the list of rows what was counted.
    optionLabel() {
      const { name, done } = this.rows.find((r) => r.id === this.$el.value)
      return done ? `✓ ${name}` : name
    },
    get manyPressed() { return String(this.many) },
    get wordsPressed() { return String(this.withWords) },
    pick(event) { this.show(this.rows.find((r) => r.id === event.target.value)) },
    pickUse(event) { this.use = Number(event.target.value) },
    rowBefore() { this.show(beside(this.rows, this.row, -1)) },
    rowAfter() { this.show(beside(this.rows, this.row, 1)) },

    // What is counted.
    // typed is told of every letter; what was noted beside the count is no part of it.
    typed({ target }) {
      if (target.id.startsWith('walk-') || target.id.startsWith('firm-')) this.changed()
    },
    changed() {
      this.asked = false
      const kept = keepDraft(this.row.id, this.today(), this.count)
      this.advice = kept ? '' : 'This phone is full: what you count here is lost if the page closes before it is recorded.'
    },
    become(count) {
      this.count = count
      this.changed()
    },
    tap({ currentTarget }) { this.become(tapped(this.count, currentTarget.dataset.rung, this.many ? byMany : 1)) },
    stepBack() { this.become(stepped(this.count)) },
    fewer() { this.become(morePlants(this.count, this.row, -1)) },
    more() { this.become(morePlants(this.count, this.row, 1)) },
    switchMany() { this.many = !this.many },
    // Who is new reads beside each button how the rung looks; who knows them wins the room back.
    switchWords() {
      this.withWords = !this.withWords
      localStorage.setItem(wordsKey, this.withWords ? 'shown' : 'hidden')
    },

    // An empty row is recorded only by somebody who has read that it is empty; pressed twice it is one count, and the next row is not touched.
    async save() {
      this.busy = true
      if (totalOf(this.count) === 0 && !this.asked) this.asked = true
      else await this.tryTo(() => this.record())
      setTimeout(() => { this.busy = false }, settled)
    },
    async record() {
      const wrong = wrongWith(this.count, this.row, this.seen)
      if (wrong) return this.blame(wrong)
      const fields = fieldsOf(this.count, this.row, { now: this.now(), counter: this.data.counter })
      const spoiled = spoiledOf(this.count, this.row, this.seen, this.today())
      await this.keep('counts', fields)
      if (spoiled) await this.keep('scouting', spoiled)
      Object.assign(this.seen, { spoiled: '', cause: '' })
      this.row.done = fields.counted_at
      this.last = { id: fields.id, name: this.row.id, waits: true }
      dropDraft(this.row.id, this.today())
      this.show(nextToCount(this.rows, this.row))
      scrollTo(0, 0)
    },
    blame({ at, advice }) {
      this.advice = advice
      const field = document.getElementById(at)
      field.closest('details')?.setAttribute('open', '')
      field.focus()
    },
    noteEvent({ currentTarget }) {
      const { event } = currentTarget.dataset
      const words = currentTarget.textContent.replace(/\s+/g, ' ').trim().toLowerCase()
      return this.tryTo(async () => {
        await this.keep('events', { id: newID(), planting: this.row.id, event, on: this.today() })
        this.noted = `${this.row.name}: ${words}, noted.`
      })
    },
    keepNote() {
      const note = this.seen.note.trim()
      if (note === '') return
      return this.tryTo(async () => {
        await this.keep('events', { id: newID(), planting: this.row.id, event: note, on: this.today() })
        this.seen.note = ''
      })
    },

    // What waits to be sent.
    async keep(kind, fields) {
      await queue.add({ kind, fields: { ...fields } })
      this.waiting = `${(await queue.all()).length} waiting`
      send()
    },
    // tryTo does what keeps a record; what the phone has no room for stays as it was typed.
    async tryTo(act) {
      try {
        await act()
      } catch {
        this.advice = 'This phone could not keep it: make room on it and press again. What was counted still stands here.'
      }
    },
    told(state, records) {
      this.waiting = waitingWords(state, records)
      this.mustSignIn = state === 'signin'
      this.refused = records.filter((r) => r.refused).map((r) => ({ ...r, words: refusalWords(r) }))
      if (this.last) this.last = { ...this.last, waits: records.some((r) => r.id === this.last.id) }
    },
    // refusal is the record beside whose reason a button was pressed.
    sendAgain() { return queue.retry({ ...this.refusal, fields: { ...this.refusal.fields } }).then(send) },
    throwAway() { return queue.remove(this.refusal.number).then(send) },
  }
}

// newWalkList is the list of rows for who has no scripts: with them the walk takes its place.
export function newWalkList() {
  return { walks: true }
}

// cut.js: the cutting sheet records each row's cut on the phone first, and sends it when there is signal.
import { notice } from './notice.js'
import { newID, openQueue } from './queue.js'
import { localMinute } from './route.js'
import { newSender } from './send.js'
import { waitingWords } from './waiting.js'

const again = 20_000 // ms after which what waits is tried again
const farBelow = 0.6 // of what was sure to stand ready: fewer than this, and the page asks after the rest
const worthAsking = 5 // stems

const isWhole = (text) => text === '' || /^\d+$/.test(text)
const fieldNames = ['stems', 'seconds', 'culled', 'cull_reason', 'left']

// fieldsOf reads the form of a row; ids of presses that follow each other stay the same until it is recorded.
export function fieldsOf(form) {
  return Object.fromEntries(fieldNames.map((name) => [name, form.elements[name].value.trim()]))
}

// wrongWith says what is wrong with a cut, and in which field; null where nothing is. most is how many stems the row can have.
export function wrongWith(cut, most) {
  const odd = ['stems', 'seconds', 'culled', 'left'].find((name) => !isWhole(cut[name]))
  if (odd) return { at: odd, advice: `“${cut[odd]}” is no whole number.` }
  if (cut.stems === '') return { at: 'stems', advice: 'Write how many sound stems were cut: 0 if nothing was ready.' }
  if (Number(cut.stems) + Number(cut.culled) > most) return { at: 'stems', advice: `That is more than the row can have: ${most} at the most.` }
  if (Number(cut.seconds) > Number(cut.stems)) return { at: 'seconds', advice: `${cut.seconds} seconds of ${cut.stems} sound stems cannot be.` }
  return null
}

// restOf is how many stems may have been left standing, where a cut lies far below what was sure to stand ready and nothing is said of the rest; 0
// where nobody need be asked.
export function restOf(cut, sure, likely) {
  const taken = Number(cut.stems) + Number(cut.culled)
  if (cut.left !== '' || sure < worthAsking || taken >= farBelow * sure) return 0
  return likely - taken
}

export async function startCut() {
  const sheet = document.getElementById('cut-sheet')
  if (!sheet) return
  const rows = [...sheet.querySelectorAll('.cut-row')]
  const ids = new Map() // of records that are not kept yet, by row: pressed twice it is one cut
  // A page that is kept on the phone, or worked out before the last records came, knows less of them than the phone does.
  const key = `dew-count:cut:${sheet.dataset.pick}`
  const done = new Set([...rows.filter((row) => row.classList.contains('is-done')).map((row) => row.dataset.row), ...JSON.parse(localStorage.getItem(key) ?? '[]')])
  const refusedBefore = new Map() // rows by the id of their record
  const now = () => sheet.dataset.now || localMinute(new Date(), sheet.dataset.zone)

  const show = () => {
    for (const row of rows) row.classList.toggle('is-done', done.has(row.dataset.row))
    document.getElementById('cut-progress').textContent = `${rows.filter((row) => done.has(row.dataset.row)).length} of ${rows.length} rows recorded.`
    try {
      localStorage.setItem(key, JSON.stringify([...done]))
    } catch {
      // a full phone forgets at the next visit which rows were ticked, and no record
    }
  }
  const openNext = (row) => {
    const at = row ? rows.indexOf(row) + 1 : 0
    const next = [...rows.slice(at), ...rows.slice(0, at)].find((r) => !done.has(r.dataset.row))
    for (const r of rows) r.open = r === next
    if (row) {
      next?.scrollIntoView({ block: 'start' })
      next?.querySelector('input[name=stems]')?.focus({ preventScroll: true })
    }
  }
  const blame = (form, wrong) => {
    const fault = form.querySelector('.cut-fault')
    fault.textContent = wrong?.advice ?? ''
    fault.classList.toggle('d-block', wrong !== null)
    if (wrong?.at) form.elements[wrong.at].focus()
  }

  const waiting = (state, records) => { document.getElementById('cut-waiting').textContent = waitingWords(state, records) }

  show()
  openNext(null)
  const queue = await openQueue()
  const send = newSender(queue, (state, records) => {
    waiting(state, records)
    document.getElementById('cut-signin').hidden = state !== 'signin'
    const refused = records.filter((r) => r.refused)
    for (const [id, row] of refusedBefore) if (!records.some((r) => r.id === id)) done.add(row) // sent after all
    refusedBefore.clear()
    for (const { id, fields } of refused.filter((r) => r.kind === 'cuts')) {
      done.delete(fields.planting) // what the farm refused is not done
      refusedBefore.set(id, fields.planting)
    }
    document.getElementById('cut-refused').replaceChildren(...refused.map((record) => notice(record, {
      again: () => queue.retry({ ...record, fields: { ...record.fields } }).then(send),
      away: () => { refusedBefore.delete(record.id); return queue.remove(record.number).then(send) },
    })))
    show()
  })

  const keep = async (form, cut) => {
    const row = form.closest('.cut-row')
    const id = ids.get(row) ?? newID()
    ids.set(row, id)
    try {
      await queue.add({ kind: 'cuts', fields: { ...cut, id, planting: row.dataset.row, cut_at: now() } })
    } catch {
      return blame(form, { advice: 'This phone could not keep it: make room on it and press again.' })
    }
    ids.delete(row)
    waiting('sending', await queue.all())
    done.add(row.dataset.row)
    form.reset()
    show()
    openNext(row)
    send()
  }
  const press = (form) => {
    const cut = fieldsOf(form)
    const wrong = wrongWith(cut, Number(form.dataset.most))
    blame(form, wrong)
    if (wrong) return
    const ask = form.querySelector('.cut-ask')
    const rest = restOf(cut, Number(form.dataset.sure), Number(form.dataset.likely))
    if (rest > 0) {
      ask.hidden = false
      ask.querySelector('span').textContent = `About ${form.dataset.likely} stood ready. What of the other ${rest}?`
      ask.querySelector('button').focus()
      return
    }
    ask.hidden = true
    return keep(form, cut)
  }
  sheet.addEventListener('submit', (event) => {
    event.preventDefault()
    press(event.target)
  })
  sheet.addEventListener('click', ({ target }) => {
    const answer = target.dataset?.left
    if (!answer) return
    const form = target.closest('form')
    const cut = fieldsOf(form)
    form.elements.left.value = answer === 'none' ? '0' : String(restOf(cut, Number(form.dataset.sure), Number(form.dataset.likely)))
    press(form)
  })
  addEventListener('online', send)
  document.addEventListener('visibilitychange', () => { if (!document.hidden) send() })
  setInterval(send, again)
  send()
}

// walk.js wires the count of all rows: taps, the next row, what waits to be sent. What is counted is safe on the phone at every tap.
import { newID, openQueue } from './queue.js'
import { newSender } from './send.js'
import { sumOf } from './tally.js'

const wordsKey = 'dew-count:words'
const settled = 700 // ms after a count in which the button takes no press
const again = 20_000 // ms after which what waits is tried again

function draftKey(row, today) {
  return `dew-count:${today}:${row}`
}

// localMinute writes a time as the farm's clock shows it: 2026-07-09T06:20.
export function localMinute(date, zone) {
  const parts = Object.fromEntries(new Intl.DateTimeFormat('en-CA', {
    timeZone: zone, year: 'numeric', month: '2-digit', day: '2-digit', hour: '2-digit', minute: '2-digit', hourCycle: 'h23',
  }).formatToParts(date).map(({ type, value }) => [type, value]))
  return `${parts.year}-${parts.month}-${parts.day}T${parts.hour}:${parts.minute}`
}

export async function startWalk() {
  const root = document.getElementById('walk')
  if (!root) return
  const data = JSON.parse(document.getElementById('walk-data').textContent)
  const part = (id) => document.getElementById(id)
  const pick = part('walk-pick')
  const plants = part('walk-plants')
  const inputs = [...root.querySelectorAll('.rung-count')]
  const firms = [...root.querySelectorAll('#walk-firm input')]
  const queue = await openQueue()
  let row = data.rows[0]
  let taps = []
  let asked = false // whether the button says that the row is empty
  const usual = part('walk-save').textContent
  let last = null // the count that was made last, to be corrected
  let id = newID() // of the count that is being made: pressed twice it is one

  const inputOf = (rung) => inputs.find((input) => input.dataset.rung === rung)
  const now = () => data.now || localMinute(new Date(), data.zone)

  function keepDraft() {
    localStorage.setItem(draftKey(row.id, now().slice(0, 10)), JSON.stringify({ id, taps, plants: plants.value, stems: inputs.map((i) => i.value), firm: firms.map((i) => i.value) }))
  }
  function dropDraft() {
    localStorage.removeItem(draftKey(row.id, now().slice(0, 10)))
  }

  function total() {
    const counted = Number.parseInt(plants.value, 10) || 0
    const expected = row.expected.map((each) => Math.round(each * counted))
    root.querySelectorAll('.rung-expected').forEach((place, k) => { place.textContent = `expected ${expected[k]}` })
    part('walk-total').textContent = `${sumOf(inputs.map((i) => i.value))} counted, ${Math.round(row.expected.reduce((a, b) => a + b, 0) * counted)} expected`
    part('walk-undo').disabled = taps.length === 0
  }

  function show(next) {
    row = next
    ask(false)
    const draft = JSON.parse(localStorage.getItem(draftKey(row.id, now().slice(0, 10))) ?? 'null')
    id = draft?.id ?? newID()
    taps = draft?.taps ?? []
    pick.value = row.id
    plants.value = draft?.plants ?? String(row.sample)
    inputs.forEach((input, k) => { input.value = draft?.stems[k] ?? '' })
    firms.forEach((input, k) => { input.value = draft?.firm[k] ?? '' })
    part('walk-hint').textContent = (row.done ? `Counted today at ${row.done.slice(11)}. ` : '') + row.hint
    part('walk-spray').textContent = row.waiting
    part('walk-spray').hidden = !row.waiting
    part('walk-firm').hidden = !row.wag
    part('walk-tests').textContent = row.tests
    root.querySelectorAll('[data-firm]').forEach((box) => { box.hidden = !row.window.includes(box.dataset.firm) })
    root.querySelectorAll('[data-rung]').forEach((place) => {
      const rung = place.dataset.rung
      place.querySelector('use')?.setAttribute('href', `${data.drawings[row.form]}#${rung}`)
      if (place.matches('li')) place.classList.toggle('in-window', row.window.includes(rung))
    })
    const words = data.words[row.form]
    for (const places of [part('walk-stage').querySelectorAll('.stage-words'), root.querySelectorAll('.rung-words')]) places.forEach((place, k) => { place.textContent = words[k] })
    root.querySelectorAll('.rung-button').forEach((button, k) => button.setAttribute('aria-label', `One more ${button.dataset.rung}: ${words[k]}`))
    fault('')
    total()
    history.replaceState(null, '', `?row=${encodeURIComponent(row.id)}`)
  }

  function fault(advice) {
    part('walk-fault').textContent = advice
    part('walk-fault').classList.toggle('d-block', advice !== '')
    plants.setAttribute('aria-invalid', String(advice !== ''))
  }

  function beside(step) {
    const at = data.rows.indexOf(row) + step
    return data.rows[(at + data.rows.length) % data.rows.length]
  }

  function told(state, records) {
    const refused = records.filter((r) => r.refused)
    const left = records.length - refused.length
    const words = { later: `${left} waiting for signal`, door: `${left} waiting: sign in to send`, sent: 'All is sent' }
    part('walk-waiting').replaceChildren(records.length === 0 || (left === 0 && state === 'sent') ? words.sent : words[state] ?? `${left} waiting`)
    if (state === 'door') {
      const door = Object.assign(document.createElement('a'), { href: `/signin?to=${encodeURIComponent('/count')}`, textContent: 'Sign in' })
      part('walk-waiting').append(' ', door)
    }
    part('walk-refused').replaceChildren(...refused.map(refusal))
    part('walk-last').hidden = !last || records.some((r) => r.id === last.id)
    if (last) Object.assign(part('walk-last').firstElementChild, { href: `/counts/${last.id}`, textContent: `Correct the count of ${last.name}` })
  }

  // refusal shows a record that the farm did not take, why, and what can be done.
  function refusal(record) {
    const box = Object.assign(document.createElement('div'), { className: 'notice notice-fault' })
    const words = Object.assign(document.createElement('p'), { textContent: `Not taken, kept on this phone: ${record.kind} of ${record.fields.planting}, ${(record.fields.counted_at ?? record.fields.on).replace('T', ' at ')}. ${record.refused}` })
    const button = (text, act) => {
      const b = Object.assign(document.createElement('button'), { type: 'button', className: 'btn btn-plain', textContent: text })
      b.addEventListener('click', async () => { await act(); await send() })
      return b
    }
    box.append(words, button('Send it again', () => queue.retry(record)), ' ', button('Throw it away', () => queue.remove(record.number)))
    return box
  }

  const send = newSender(queue, told)

  async function keep(kind, fields) {
    await queue.add({ kind, fields })
    part('walk-waiting').textContent = `${(await queue.all()).length} waiting`
    send()
  }

  // ask sets what the button says: an empty row is recorded only by somebody who has read that it is empty.
  function ask(empty) {
    asked = empty
    part('walk-save').textContent = empty ? 'Nothing in bud: record that' : usual
  }

  async function save() {
    part('walk-save').disabled = true // pressed twice it is one count, and the next row is not touched
    try {
      if (sumOf(inputs.map((i) => i.value)) === 0 && !asked) ask(true)
      else await record()
    } catch {
      fault('This phone could not keep the count: make room on it and press again. What was counted still stands here.')
    } finally {
      setTimeout(() => { part('walk-save').disabled = false }, settled)
    }
  }

  async function record() {
    const n = Number(plants.value)
    if (!Number.isInteger(n) || n < 1 || n > row.plants) {
      fault(`Write how many plants were counted: 1 to ${row.plants}.`)
      plants.focus()
      return
    }
    const wrong = [...inputs, ...firms].find((input) => input.value.trim() !== '' && !/^\d+$/.test(input.value.trim()))
    if (wrong) {
      fault(`${wrong.dataset.rung}: “${wrong.value}” is no whole number.`)
      wrong.focus()
      return
    }
    const spoiled = part('spoiled').value.trim()
    const sum = sumOf(inputs.map((i) => i.value))
    if (spoiled !== '' && (!/^\d+$/.test(spoiled) || Number(spoiled) > sum || part('cause').value.trim() === '')) {
      fault(Number(spoiled) > sum ? `${spoiled} spoiled of ${sum} counted cannot be.` : 'Write how many stems are spoiled, and by what.')
      part('spoiled').closest('details').open = true
      part('spoiled').focus()
      return
    }
    const fields = { id, planting: row.id, counted_at: now(), plants_counted: String(n), counter: data.counter }
    for (const input of inputs) if (input.value.trim()) fields[`stems_${input.dataset.rung}`] = input.value.trim()
    for (const input of firms) if (row.wag && input.value.trim() && row.window.includes(input.dataset.rung)) fields[`firm_${input.dataset.rung}`] = input.value.trim()
    await keep('counts', fields)
    if (spoiled !== '') {
      await keep('scouting', { id: `${id}-s`, planting: row.id, on: now().slice(0, 10), cause: part('cause').value.trim(), stems: String(Math.max(1, sum)), spoiled })
      part('spoiled').value = ''
      part('cause').value = ''
    }
    row.done = fields.counted_at
    last = { id, name: row.id }
    dropDraft()
    show(beside(1))
    scrollTo(0, 0)
  }

  const press = (button, pressed) => button.setAttribute('aria-pressed', String(pressed))
  const isPressed = (button) => button.getAttribute('aria-pressed') === 'true'
  root.addEventListener('click', (event) => {
    const button = event.target.closest('.rung-button')
    if (!button) return
    const by = isPressed(part('walk-step')) ? 5 : 1
    const input = inputOf(button.dataset.rung)
    input.value = String(sumOf([input.value]) + by)
    taps.push([button.dataset.rung, by])
    ask(false)
    keepDraft()
    total()
  })
  root.addEventListener('input', () => { ask(false); keepDraft(); total() })
  part('walk-undo').addEventListener('click', () => {
    const [rung, by] = taps.pop()
    const input = inputOf(rung)
    input.value = String(Math.max(0, sumOf([input.value]) - by))
    keepDraft()
    total()
  })
  part('walk-step').addEventListener('click', ({ currentTarget }) => press(currentTarget, !isPressed(currentTarget)))
  // Who is new reads beside each button how the rung looks; who knows them wins the room back.
  const words = (shown) => {
    press(part('walk-words'), shown)
    root.classList.toggle('without-words', !shown)
    localStorage.setItem(wordsKey, shown ? 'shown' : 'hidden')
  }
  part('walk-words').addEventListener('click', ({ currentTarget }) => words(!isPressed(currentTarget)))
  words(localStorage.getItem(wordsKey) !== 'hidden')
  for (const [button, by] of [['walk-fewer', -1], ['walk-more', 1]]) {
    part(button).addEventListener('click', () => {
      plants.value = String(Math.min(row.plants, Math.max(1, sumOf([plants.value]) + by)))
      keepDraft()
      total()
    })
  }
  part('walk-save').addEventListener('click', save)
  part('walk-back-row').addEventListener('click', () => show(beside(-1)))
  part('walk-next-row').addEventListener('click', () => show(beside(1)))
  pick.addEventListener('change', () => show(data.rows.find((r) => r.id === pick.value)))
  root.querySelectorAll('[data-event]').forEach((button) => button.addEventListener('click', async () => {
    await keep('events', { id: newID(), planting: row.id, event: button.dataset.event, on: now().slice(0, 10) })
    fault('')
    part('walk-hint').textContent = `${row.name}: ${button.textContent.toLowerCase()}, noted.`
  }))
  part('keep-note').addEventListener('click', async () => {
    const note = part('note').value.trim()
    if (note === '') return
    await keep('events', { id: newID(), planting: row.id, event: note, on: now().slice(0, 10) })
    part('note').value = ''
  })

  addEventListener('online', send)
  document.addEventListener('visibilitychange', () => { if (!document.hidden) send() })
  setInterval(send, again)

  const wanted = new URLSearchParams(location.search).get('row')
  show(data.rows.find((r) => r.id === wanted) ?? data.rows.find((r) => !r.done) ?? row)
  root.hidden = false
  part('walk-list').hidden = true
  send()
}

// walk.js wires the count of all rows: taps, the next row, what waits to be sent. What is counted is safe on the phone at every tap.
import { dropDraft, keepDraft, readDraft } from './draft.js'
import { newID, openQueue } from './queue.js'
import { newSender } from './send.js'
import { sumOf } from './tally.js'
import { refusal, showWaiting } from './waiting.js'

const wordsKey = 'dew-count:words'
const settled = 700 // ms after a count in which the button takes no press
const again = 20_000 // ms after which what waits is tried again

// localMinute writes a time as the farm's clock shows it: 2026-07-09T06:20.
export function localMinute(date, zone) {
  const parts = Object.fromEntries(new Intl.DateTimeFormat('en-CA', {
    timeZone: zone, year: 'numeric', month: '2-digit', day: '2-digit', hour: '2-digit', minute: '2-digit', hourCycle: 'h23',
  }).formatToParts(date).map(({ type, value }) => [type, value]))
  return `${parts.year}-${parts.month}-${parts.day}T${parts.hour}:${parts.minute}`
}

// nextToCount returns the next row in walking order that is worth a count and has none of today, else the one after.
export function nextToCount(rows, row) {
  const at = rows.indexOf(row) + 1
  const onward = [...rows.slice(at), ...rows.slice(0, at)]
  return onward.find((r) => r.due && !r.done) ?? onward[0]
}

// placeOf says how far the walk is, before what there is to know of a row.
export function placeOf(rows, row) {
  const counted = rows.filter((r) => r.done).length
  const left = rows.filter((r) => r.due && !r.done).length
  if (row.done) return `Counted today at ${row.done.slice(11)}. `
  if (left === 0) return counted > 0 ? 'All is counted that is worth it. ' : ''
  return `${left} ${left === 1 ? 'row' : 'rows'} to count. `
}

export async function startWalk() {
  const root = document.getElementById('walk')
  if (!root) return
  const data = JSON.parse(document.getElementById('walk-data').textContent)
  const part = (id) => document.getElementById(id)
  const all = (selector) => [...root.querySelectorAll(selector)]
  const pick = part('walk-pick')
  const plants = part('walk-plants')
  const inputs = all('.rung-count')
  const firms = all('#walk-firm input')
  const queue = await openQueue()
  let row = data.rows[0]
  let taps = []
  let asked = false // whether the button says that the row is empty
  const usual = part('walk-save').textContent
  let last = null // the count that was made last, to be corrected
  let id = newID() // of the count that is being made: pressed twice it is one

  const inputOf = (rung) => inputs.find((input) => input.dataset.rung === rung)
  const now = () => data.now || localMinute(new Date(), data.zone)
  const today = () => now().slice(0, 10)
  const counted = () => sumOf(inputs.map((i) => i.value))

  function changed() {
    ask(false)
    const kept = keepDraft(row.id, today(), { id, taps, plants: plants.value, stems: inputs.map((i) => i.value), firm: firms.map((i) => i.value) })
    fault(kept ? '' : 'This phone is full: what you count here is lost if the page closes before it is recorded.')
    total()
  }

  function total() {
    const sample = Number.parseInt(plants.value, 10) || 0
    all('.rung-expected').forEach((place, k) => { place.textContent = `expected ${Math.round(row.expected[k] * sample)}` })
    part('walk-total').textContent = `${counted()} counted, ${Math.round(row.expected.reduce((a, b) => a + b, 0) * sample)} expected`
    part('walk-undo').disabled = taps.length === 0
  }

  function show(next) {
    row = next
    ask(false)
    const draft = readDraft(row.id, today())
    id = draft?.id ?? newID()
    taps = draft?.taps ?? []
    pick.value = row.id
    plants.value = draft?.plants ?? String(row.sample)
    inputs.forEach((input, k) => { input.value = draft?.stems[k] ?? '' })
    firms.forEach((input, k) => { input.value = draft?.firm[k] ?? '' })
    part('walk-hint').textContent = placeOf(data.rows, row) + row.hint
    part('walk-spray').textContent = row.waiting
    part('walk-spray').hidden = !row.waiting
    part('walk-firm').hidden = !row.wag
    part('walk-tests').textContent = row.tests
    draw()
    fault('')
    total()
    history.replaceState(null, '', `?row=${encodeURIComponent(row.id)}`)
  }

  // draw gives the buttons and the stage card the ladder and the words of the row's flower.
  function draw() {
    all('[data-firm]').forEach((box) => { box.hidden = !row.window.includes(box.dataset.firm) })
    all('[data-rung]').forEach((place) => {
      const rung = place.dataset.rung
      place.querySelector('use')?.setAttribute('href', `${data.drawings[row.form]}#${rung}`)
      if (place.matches('li')) place.classList.toggle('in-window', row.window.includes(rung))
    })
    const words = data.words[row.form]
    for (const places of [all('#walk-stage .stage-words'), all('.rung-words')]) places.forEach((place, k) => { place.textContent = words[k] })
    all('.rung-button').forEach((button, k) => button.setAttribute('aria-label', `One more ${button.dataset.rung}: ${words[k]}`))
  }

  // marked ticks off in the list of rows what was counted.
  function marked() {
    for (const option of pick.options) {
      const { name, done } = data.rows.find((r) => r.id === option.value)
      option.textContent = done ? `✓ ${name}` : name
    }
  }

  function fault(advice) {
    part('walk-fault').textContent = advice
    part('walk-fault').classList.toggle('d-block', advice !== '')
    plants.setAttribute('aria-invalid', String(advice !== ''))
  }

  // told shows what came of sending.
  function told(state, records) {
    showWaiting(part('walk-waiting'), state, records)
    part('walk-refused').replaceChildren(...records.filter((r) => r.refused).map((r) => refusal(r, queue, send)))
    part('walk-last').hidden = !last || records.some((r) => r.id === last.id)
    if (last) Object.assign(part('walk-last').firstElementChild, { href: `/counts/${encodeURIComponent(last.id)}`, textContent: `Correct the count of ${last.name}` })
  }
  const send = newSender(queue, told)

  async function keep(kind, fields) {
    await queue.add({ kind, fields })
    part('walk-waiting').textContent = `${(await queue.all()).length} waiting`
    send()
  }

  // tryTo does what keeps a record; what the phone has no room for stays as it was typed.
  async function tryTo(act) {
    try {
      await act()
    } catch {
      fault('This phone could not keep it: make room on it and press again. What was counted still stands here.')
    }
  }

  // ask sets what the button says: an empty row is recorded only by somebody who has read that it is empty.
  function ask(empty) {
    asked = empty
    part('walk-save').textContent = empty ? 'Nothing in bud: record that' : usual
  }

  async function save() {
    part('walk-save').disabled = true // pressed twice it is one count, and the next row is not touched
    if (counted() === 0 && !asked) ask(true)
    else await tryTo(record)
    setTimeout(() => { part('walk-save').disabled = false }, settled)
  }

  // wrong shows what is wrong with the count and where, and tells whether anything is.
  function wrong() {
    const blame = (advice, input) => {
      fault(advice)
      input.closest('details')?.setAttribute('open', '')
      input.focus()
      return true
    }
    const n = Number(plants.value)
    if (!Number.isInteger(n) || n < 1 || n > row.plants) return blame(`Write how many plants were counted: 1 to ${row.plants}.`, plants)
    const odd = [...inputs, ...firms].find((input) => input.value.trim() !== '' && !/^\d+$/.test(input.value.trim()))
    if (odd) return blame(`${odd.dataset.rung}: “${odd.value}” is no whole number.`, odd)
    const spoiled = part('spoiled').value.trim()
    if (spoiled === '') return false
    if (Number(spoiled) > counted()) return blame(`${spoiled} spoiled of ${counted()} counted cannot be.`, part('spoiled'))
    if (!/^\d+$/.test(spoiled) || part('cause').value.trim() === '') return blame('Write how many stems are spoiled, and by what.', part('spoiled'))
    return false
  }

  async function record() {
    if (wrong()) return
    const fields = { id, planting: row.id, counted_at: now(), plants_counted: String(Number(plants.value)), counter: data.counter }
    for (const input of inputs) if (input.value.trim()) fields[`stems_${input.dataset.rung}`] = input.value.trim()
    for (const input of firms) if (row.wag && input.value.trim() && row.window.includes(input.dataset.rung)) fields[`firm_${input.dataset.rung}`] = input.value.trim()
    await keep('counts', fields)
    const spoiled = part('spoiled').value.trim()
    if (spoiled !== '') {
      await keep('scouting', { id: `${id}-s`, planting: row.id, on: today(), cause: part('cause').value.trim(), stems: String(Math.max(1, counted())), spoiled })
      part('spoiled').value = ''
      part('cause').value = ''
    }
    row.done = fields.counted_at
    last = { id, name: row.id }
    dropDraft(row.id, today())
    marked()
    show(nextToCount(data.rows, row))
    scrollTo(0, 0)
  }

  function step(by) {
    const at = data.rows.indexOf(row) + by
    show(data.rows[(at + data.rows.length) % data.rows.length])
  }

  const press = (button, pressed) => button.setAttribute('aria-pressed', String(pressed))
  const isPressed = (button) => button.getAttribute('aria-pressed') === 'true'
  const on = (name, act) => part(name).addEventListener('click', act)
  root.addEventListener('click', (event) => {
    const button = event.target.closest('.rung-button')
    if (!button) return
    const by = isPressed(part('walk-step')) ? 5 : 1
    const input = inputOf(button.dataset.rung)
    input.value = String(sumOf([input.value]) + by)
    taps.push([button.dataset.rung, by])
    changed()
  })
  root.addEventListener('input', changed)
  on('walk-undo', () => {
    const [rung, by] = taps.pop()
    const input = inputOf(rung)
    input.value = String(Math.max(0, sumOf([input.value]) - by))
    changed()
  })
  on('walk-step', ({ currentTarget }) => press(currentTarget, !isPressed(currentTarget)))
  // Who is new reads beside each button how the rung looks; who knows them wins the room back.
  const words = (shown) => {
    press(part('walk-words'), shown)
    root.classList.toggle('without-words', !shown)
    localStorage.setItem(wordsKey, shown ? 'shown' : 'hidden')
  }
  on('walk-words', ({ currentTarget }) => words(!isPressed(currentTarget)))
  words(localStorage.getItem(wordsKey) !== 'hidden')
  for (const [name, by] of [['walk-fewer', -1], ['walk-more', 1]]) {
    on(name, () => {
      plants.value = String(Math.min(row.plants, Math.max(1, sumOf([plants.value]) + by)))
      changed()
    })
  }
  on('walk-save', save)
  on('walk-back-row', () => step(-1))
  on('walk-next-row', () => step(1))
  pick.addEventListener('change', () => show(data.rows.find((r) => r.id === pick.value)))
  all('[data-event]').forEach((button) => button.addEventListener('click', () => tryTo(async () => {
    await keep('events', { id: newID(), planting: row.id, event: button.dataset.event, on: today() })
    part('walk-hint').textContent = `${row.name}: ${button.textContent.toLowerCase()}, noted.`
  })))
  on('keep-note', () => tryTo(async () => {
    const note = part('note').value.trim()
    if (note === '') return
    await keep('events', { id: newID(), planting: row.id, event: note, on: today() })
    part('note').value = ''
  }))

  addEventListener('online', send)
  document.addEventListener('visibilitychange', () => { if (!document.hidden) send() })
  setInterval(send, again)

  const wanted = new URLSearchParams(location.search).get('row')
  marked()
  show(data.rows.find((r) => r.id === wanted) ?? nextToCount(data.rows, data.rows.at(-1)))
  root.hidden = false
  part('walk-list').hidden = true
  send()
}

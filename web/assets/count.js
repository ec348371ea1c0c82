// count.js: a count of one row while it is being made. All of it is plain values: nothing here knows the page.
import { newID } from './queue.js'
import { sumOf } from './tally.js'

// newCount begins a count of a row, or goes on with the draft of one.
export function newCount(row, rungs, draft) {
  const none = Object.fromEntries(rungs.map((rung) => [rung, '']))
  return {
    id: draft?.id ?? newID(), // pressed twice it is one count
    taps: draft?.taps ?? [],
    plants: draft?.plants ?? String(row.sample),
    stems: { ...none, ...draft?.stems },
    firm: { ...none, ...draft?.firm },
  }
}

// tapped adds stems to a rung, and remembers the tap.
export function tapped(count, rung, by) {
  return { ...count, stems: { ...count.stems, [rung]: String(sumOf([count.stems[rung]]) + by) }, taps: [...count.taps, [rung, by]] }
}

// stepped takes the last tap back.
export function stepped(count) {
  if (count.taps.length === 0) return count
  const [rung, by] = count.taps.at(-1)
  return { ...count, stems: { ...count.stems, [rung]: String(Math.max(0, sumOf([count.stems[rung]]) - by)) }, taps: count.taps.slice(0, -1) }
}

// morePlants changes how many plants are counted, within those of the row.
export function morePlants(count, row, by) {
  return { ...count, plants: String(Math.min(row.plants, Math.max(1, sumOf([count.plants]) + by))) }
}

export function totalOf(count) {
  return sumOf(Object.values(count.stems))
}

// expectedOn is how many stems the forecast expects on a rung of the plants that are counted.
export function expectedOn(count, row, k) {
  return Math.round(row.expected[k] * sumOf([count.plants]))
}

export function expectedInAll(count, row) {
  return Math.round(row.expected.reduce((a, b) => a + b, 0) * sumOf([count.plants]))
}

const isWhole = (text) => /^\d+$/.test(text.trim())

// wrongWith says what is wrong with a count, and at which field; null where nothing is. seen is what was noted beside it.
export function wrongWith(count, row, seen) {
  const n = Number(count.plants)
  if (!Number.isInteger(n) || n < 1 || n > row.plants) return { at: 'walk-plants', advice: `Write how many plants were counted: 1 to ${row.plants}.` }
  for (const [prefix, typed] of [['walk-', count.stems], ['firm-', count.firm]]) {
    const odd = Object.keys(typed).find((rung) => typed[rung].trim() !== '' && !isWhole(typed[rung]))
    if (odd) return { at: prefix + odd, advice: `${odd}: “${typed[odd]}” is no whole number.` }
  }
  const spoiled = seen.spoiled.trim()
  if (spoiled === '') return null
  if (Number(spoiled) > totalOf(count)) return { at: 'spoiled', advice: `${spoiled} spoiled of ${totalOf(count)} counted cannot be.` }
  if (!isWhole(spoiled) || seen.cause.trim() === '') return { at: 'spoiled', advice: 'Write how many stems are spoiled, and by what.' }
  return null
}

// fieldsOf is the count as the farm takes it.
export function fieldsOf(count, row, { now, counter }) {
  const fields = { id: count.id, planting: row.id, counted_at: now, plants_counted: String(Number(count.plants)), counter }
  for (const [rung, stems] of Object.entries(count.stems)) if (stems.trim()) fields[`stems_${rung}`] = stems.trim()
  for (const [rung, firm] of Object.entries(count.firm)) if (row.wag && firm.trim() && row.window.includes(rung)) fields[`firm_${rung}`] = firm.trim()
  return fields
}

// spoiledOf is what was spoiled among the stems of a count, null where nothing was noted.
export function spoiledOf(count, row, seen, today) {
  const spoiled = seen.spoiled.trim()
  if (spoiled === '') return null
  return { id: `${count.id}-s`, planting: row.id, on: today, cause: seen.cause.trim(), stems: String(Math.max(1, totalOf(count))), spoiled }
}

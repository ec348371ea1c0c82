// route.js: the way along the rows, and the farm's clock.

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

// beside returns the row so many places on; after the last comes the first.
export function beside(rows, row, by) {
  return rows[(rows.indexOf(row) + by + rows.length) % rows.length]
}

// placeOf says how far the walk is, before what there is to know of a row.
export function placeOf(rows, row) {
  const counted = rows.filter((r) => r.done).length
  const left = rows.filter((r) => r.due && !r.done).length
  if (row.done) return `Counted today at ${row.done.slice(11)}. `
  if (left === 0) return counted > 0 ? 'All is counted that is worth it. ' : ''
  return `${left} ${left === 1 ? 'row' : 'rows'} to count. `
}

// draft.js: a tally that was begun stands on the phone from tap to tap, for one row on one day.

function keyOf(row, today) {
  return `dew-count:${today}:${row}`
}

export function readDraft(row, today) {
  return JSON.parse(localStorage.getItem(keyOf(row, today)) ?? 'null')
}

// keepDraft tells whether the phone had room for it.
export function keepDraft(row, today, draft) {
  try {
    localStorage.setItem(keyOf(row, today), JSON.stringify(draft))
    return true
  } catch {
    return false
  }
}

export function dropDraft(row, today) {
  localStorage.removeItem(keyOf(row, today))
}

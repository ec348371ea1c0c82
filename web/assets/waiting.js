// waiting.js says what waits on the phone to be sent, and what the farm did not take, with the reason.

export function waitingWords(state, records) {
  const left = records.filter((r) => !r.refused).length
  if (state === 'later') return `${left} waiting for signal`
  if (state === 'signin') return `${left} waiting: sign in to send`
  return left === 0 ? 'All is sent' : `${left} waiting`
}

export function refusalWords({ kind, fields, refused }) {
  const of = fields.planting ?? fields.place ?? fields.lot ?? fields.person
  return `Not taken, kept on this phone: ${kind} of ${of}, ${(fields.counted_at ?? fields.cut_at ?? fields.at ?? fields.on).replace('T', ' at ')}. ${refused}`
}

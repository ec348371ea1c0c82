// waiting.js shows what waits on the phone to be sent, and what the farm did not take, with the reason.

function saidOf(state, records) {
  const left = records.filter((r) => !r.refused).length
  if (state === 'later') return `${left} waiting for signal`
  if (state === 'door') return `${left} waiting: sign in to send`
  return left === 0 ? 'All is sent' : `${left} waiting`
}

export function showWaiting(place, state, records) {
  place.replaceChildren(saidOf(state, records))
  if (state !== 'door') return
  place.append(' ', Object.assign(document.createElement('a'), { href: `/signin?to=${encodeURIComponent('/count')}`, textContent: 'Sign in' }))
}

function button(text, act) {
  const made = Object.assign(document.createElement('button'), { type: 'button', className: 'btn btn-plain', textContent: text })
  made.addEventListener('click', act)
  return made
}

// refusal shows a record that the farm did not take, why, and what can be done; send is what follows on that.
export function refusal(record, queue, send) {
  const { kind, fields, refused } = record
  const box = Object.assign(document.createElement('div'), { className: 'notice notice-fault' })
  box.append(
    Object.assign(document.createElement('p'), { textContent: `Not taken, kept on this phone: ${kind} of ${fields.planting}, ${(fields.counted_at ?? fields.on).replace('T', ' at ')}. ${refused}` }),
    button('Send it again', () => queue.retry(record).then(send)), ' ',
    button('Throw it away', () => queue.remove(record.number).then(send)),
  )
  return box
}

// send.js: what waits is sent one by one, the oldest first; what was sent twice the farm keeps once, by its id.

// flush sends what waits until something must wait on, and says why: 'sent', 'later' for no signal, 'signin' for who must sign in.
export async function flush(queue, post) {
  for (const record of await queue.all()) {
    if (record.refused) continue
    const answer = await post(record)
    if (answer.state === 'later' || answer.state === 'signin') return answer.state
    if (answer.state === 'kept') await queue.remove(record.number)
    else await queue.refuse(record, answer.advice) // it stays on the phone, with the reason
  }
  return 'sent'
}

const json = { Accept: 'application/json' }
const patience = 15_000 // ms that a weak signal has for an answer

// stateOf reads an answer: a fault of the way or of the server is no verdict on the record.
function stateOf(status) {
  if (status === 401 || status === 403) return 'signin'
  if (status === 408 || status === 429 || status >= 500) return 'later'
  return status < 300 ? 'kept' : 'refused'
}

// postField sends one record to the farm, with a token that it asks for first.
export async function postField(record, send = fetch) {
  try {
    const asked = await send('/token', { headers: json, cache: 'no-store', signal: AbortSignal.timeout(patience) })
    if (stateOf(asked.status) !== 'kept') return { state: stateOf(asked.status) === 'signin' ? 'signin' : 'later' }
    const { token } = await asked.json()
    const answer = await send('/field', {
      method: 'POST', headers: { ...json, 'Content-Type': 'application/json', 'X-CSRF-Token': token },
      body: JSON.stringify({ kind: record.kind, fields: record.fields }), signal: AbortSignal.timeout(patience),
    })
    const state = stateOf(answer.status)
    if (state !== 'refused') return { state }
    const said = await answer.json().catch(() => ({}))
    return { state, advice: said.advice ?? `The farm did not take it (${answer.status}).` }
  } catch {
    return { state: 'later' }
  }
}

// newSender flushes one at a time, also when several pages are open, and tells what came of it.
export function newSender(queue, tell, post = postField) {
  let running = null
  const once = () => flush(queue, post)
  const send = async () => {
    const state = navigator.locks ? await navigator.locks.request('dew-count-send', once) : await once()
    tell(state, await queue.all())
  }
  return () => {
    running ??= send().finally(() => { running = null })
    return running
  }
}

// nosignal.js: where there is no signal, what was done is kept on the phone and sent once it comes back: jobs of the rounds, stems that were moved,
// temperatures.
import { notice } from './notice.js'
import { newID, openQueue } from './queue.js'
import { localMinute } from './route.js'
import { newSender } from './send.js'
import { waitingWords } from './waiting.js'

const again = 20_000 // ms after which what waits is tried again

// recordsOf reads a form of the field as its records: of the rounds one for each job, of others one. Of fields it has the names and values. A job pressed twice is
// one record.
export function recordsOf(kind, fields, { pressed, now, by = newID }) {
  const value = (name) => fields.find(([n]) => n === name)?.[1].trim() ?? ''
  if (kind !== 'jobs') {
    const typed = Object.fromEntries(fields.filter(([name]) => name !== 'csrf').map(([name, v]) => [name, v.trim()]))
    return [{ kind, fields: { ...typed, id: by(), at: now } }]
  }
  const state = pressed || value('do')
  const on = state === 'moved' ? value('on') : now.slice(0, 10)
  return fields.filter(([name]) => name === 'job').map(([, v]) => {
    const [planting, task, shown, ...job] = v.split('|')
    return { kind, fields: { id: `${job.join('|')} ${state} ${on}`, job: job.join('|'), planting, task, shown, state, on, person: state === 'given' ? value('person') : '' } }
  })
}

// wrongWith says what of a record the farm would refuse, null where nothing is; most is how many stems there are.
export function wrongWith({ kind, fields }, most) {
  if (kind === 'temperatures') return fields.place && /^-?\d+([.,]\d+)?$/.test(fields.celsius) ? null : 'Choose the place, and write what its thermometer shows.'
  if (kind !== 'moves') return null
  if (!/^\d+$/.test(fields.stems) || Number(fields.stems) < 1) return `“${fields.stems}” is no number of stems.`
  if (Number(fields.stems) > most) return `${most} stand there, and not ${fields.stems}.`
  if (fields.what === 'to' && !fields.place) return 'Choose the place to which they were brought.'
  if (fields.what === 'tinted' && !fields.colour) return 'Write the colour that they have now.'
  return null
}

const isWithout = () => !navigator.onLine || document.body.classList.contains('is-kept')

export async function startNoSignal() {
  const bar = document.getElementById('field-bar')
  if (!bar || !document.querySelector('form[data-field]')) return
  const { zone, now } = document.body.dataset
  const clock = () => now || localMinute(new Date(), zone)
  const mark = () => document.body.classList.toggle('is-offline', isWithout())
  const queue = await openQueue()
  const send = newSender(queue, (state, records) => {
    const mine = records.filter((r) => r.kind === 'jobs' || r.kind === 'moves' || r.kind === 'lessons' || r.kind === 'temperatures')
    bar.hidden = mine.length === 0 && bar.dataset.kept !== 'yes'
    bar.querySelector('[role=status]').textContent = waitingWords(state, mine)
    bar.querySelector('.field-refused').replaceChildren(...mine.filter((r) => r.refused).map((record) => notice(record, {
      again: () => queue.retry({ ...record, fields: { ...record.fields } }).then(send),
      away: () => queue.remove(record.number).then(send),
    })))
  })

  document.addEventListener('submit', async (event) => {
    const form = event.target
    if (!form.dataset.field || !isWithout()) return
    event.preventDefault()
    const records = recordsOf(form.dataset.field, [...new FormData(form).entries()], { pressed: event.submitter?.name === 'do' ? event.submitter.value : '', now: clock() })
    const fault = form.querySelector('.field-fault')
    const wrong = records.map((r) => wrongWith(r, Number(form.dataset.most ?? 0))).find(Boolean) ?? ''
    if (fault) {
      fault.textContent = wrong
      fault.classList.toggle('d-block', wrong !== '')
    }
    if (wrong) return
    try {
      for (const record of records) await queue.add(record)
    } catch {
      bar.hidden = false
      bar.querySelector('[role=status]').textContent = 'This phone could not keep it: make room on it and press again.'
      return
    }
    bar.dataset.kept = 'yes'
    form.closest('li, .group')?.classList.add('is-kept-here')
    if (form.dataset.field !== 'jobs') form.hidden = true
    send()
  })

  // Without signal a heap's link opens the form that the page brought along.
  document.addEventListener('click', (event) => {
    const link = event.target.closest('.heap-what a')
    const form = document.getElementById('move-here')
    if (!link || !form || !isWithout()) return
    event.preventDefault()
    const asked = new URL(link.href).searchParams
    for (const name of ['lot', 'from', 'stems']) form.elements[name].value = asked.get(name) ?? ''
    form.dataset.most = asked.get('stems') ?? '0'
    form.querySelector('.field-what').textContent = link.textContent.trim()
    form.hidden = false
    link.closest('li').append(form)
    form.elements.stems.focus()
  })

  mark()
  addEventListener('online', () => { mark(); send() })
  addEventListener('offline', mark)
  setInterval(send, again)
  send()
}

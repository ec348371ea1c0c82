// app.js wires the page: the tally of a count, the key that jumps, and a sign that the farm is reckoning.
import { startBeds } from './beds.js'
import { startCut } from './cut.js'
import { startNoSignal } from './nosignal.js'
import { openQueue } from './queue.js'
import { startSchool } from './school.js'
import { startSeason } from './season.js'
import { newSender } from './send.js'
import { newTally } from './tally.js'
import { newWalk, newWalkList } from './walk.js'

document.addEventListener('alpine:init', () => {
  window.Alpine.data('tally', newTally)
  window.Alpine.data('walk', newWalk)
  window.Alpine.data('walkList', newWalkList)
})

document.addEventListener('keydown', (event) => {
  const typing = event.target.closest('input, select, textarea')
  if (event.key === '/' && !typing) {
    event.preventDefault()
    document.getElementById('to')?.focus()
  }
})

startSeason()
startBeds()
startCut()
startNoSignal()
startSchool()

// What was recorded and still waits is sent from any page: whoever leaves the row for another page need not come back to it.
openQueue().then((queue) => newSender(queue, () => {})()).catch(() => {})

// The pages of the field open without signal once one of them was opened with it; only a secure address has what that needs.
navigator.serviceWorker?.register('/worker.js').catch(() => {})
navigator.serviceWorker?.ready.then(({ active }) => active.postMessage('keep'))

// A farm that is being set up most likely lies where the browser is.
const zone = document.querySelector('input[name=timezone]')
if (zone && zone.value === '') zone.value = Intl.DateTimeFormat().resolvedOptions().timeZone

// A new day is reckoned for about a second; the bar shows by itself once that is noticed.
addEventListener('beforeunload', () => document.body.classList.add('is-busy'))
addEventListener('pageshow', () => document.body.classList.remove('is-busy'))

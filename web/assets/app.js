// app.js wires the page: the tally of a count, and the key that jumps.
import { newTally } from './tally.js'

document.addEventListener('alpine:init', () => {
  window.Alpine.data('tally', newTally)
})

document.addEventListener('keydown', (event) => {
  const typing = event.target.closest('input, select, textarea')
  if (event.key === '/' && !typing) {
    event.preventDefault()
    document.getElementById('to')?.focus()
  }
})

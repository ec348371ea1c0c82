// beds.js moves the bed plan through the year as its slider moves: what stands on the day is shown, the rest is not.
import { shifted } from './season.js'

// stands tells whether a stay holds its squares on a day; an empty until is for good.
export function stands(from, until, on) {
  return from <= on && (until === '' || on < until)
}

export function startBeds() {
  const form = document.querySelector('[data-slider]')
  if (!form) return
  const slider = form.querySelector('input[type=range]')
  const date = form.querySelector('input[type=date]')
  const spoken = document.querySelector('[data-date-spoken]')

  const show = (on) => {
    for (const stay of document.querySelectorAll('[data-from]')) {
      stay.classList.toggle('is-away', !stands(stay.dataset.from, stay.dataset.until, on))
    }
    for (const used of document.querySelectorAll('[data-used]')) used.hidden = true
    const x = (640 * Number(slider.value)) / (Number(slider.max) + 1)
    for (const now of document.querySelectorAll('[data-strip-now]')) now.setAttribute('d', `M${x} 0V24`)
    spoken.textContent = new Date(on + 'T00:00Z').toLocaleDateString('en-GB', { weekday: 'long', day: 'numeric', month: 'long', year: 'numeric', timeZone: 'UTC' }).replace(',', '')
  }
  slider.addEventListener('input', () => {
    date.value = shifted(form.dataset.first, Number(slider.value))
    show(date.value)
  })
  slider.addEventListener('change', () => history.replaceState(null, '', `/beds?on=${date.value}`))
}

// season.js moves a planting in the year's drawing: by its seed with the mouse or a finger, or with the arrow keys. What it changes is worked
// out by the server, on the page that the move leads to.

const dayMs = 24 * 3600 * 1000

// shifted returns an ISO date so many days later.
export function shifted(iso, days) {
  return new Date(Date.parse(iso + 'T00:00Z') + days * dayMs).toISOString().slice(0, 10)
}

const spoken = (iso) => new Date(iso + 'T00:00Z').toLocaleDateString('en-GB', { weekday: 'short', day: 'numeric', month: 'long', timeZone: 'UTC' })

// A mover shows where a planting would go, and goes there.
class Mover {
  constructor(svg, stem) {
    this.svg = svg
    this.stem = stem
    this.seed = stem.querySelector('.stem-seed')
    this.x = Number(this.seed.getAttribute('cx'))
    this.days = 0
  }

  // perDay is how wide a day is in the drawing's units.
  get perDay() {
    return Number(this.svg.dataset.day)
  }

  show(days) {
    this.days = days
    this.seed.setAttribute('cx', this.x + days * this.perDay)
    if (!this.label) {
      this.label = document.createElementNS('http://www.w3.org/2000/svg', 'text')
      this.label.setAttribute('class', 'move-label')
      this.label.setAttribute('y', Number(this.seed.getAttribute('cy')) - 7)
      this.svg.append(this.label)
    }
    this.label.setAttribute('x', this.x + days * this.perDay + 8)
    this.label.textContent = spoken(this.start())
    document.getElementById('move-said').textContent = `${this.stem.dataset.planting} to ${spoken(this.start())}`
  }

  start() {
    return shifted(this.stem.dataset.start, this.days)
  }

  back() {
    this.show(0)
    this.label.remove()
    this.label = undefined
  }

  go() {
    const to = new URL(this.stem.getAttribute('href'), location)
    if (this.days !== 0) to.searchParams.set('started_on', this.start())
    to.hash = 'move'
    location.assign(to)
  }
}

function watch(svg) {
  const movers = new Map()
  const moverOf = (stem) => {
    if (!movers.has(stem)) movers.set(stem, new Mover(svg, stem))
    return movers.get(stem)
  }
  const units = (event) => (event.clientX / svg.getBoundingClientRect().width) * svg.viewBox.baseVal.width
  let dragged
  let from = 0

  svg.addEventListener('pointerdown', (event) => {
    const stem = event.target.closest('.stem[data-moves]')
    if (!stem || !event.target.classList.contains('stem-seed')) return
    event.preventDefault()
    dragged = moverOf(stem)
    from = units(event)
    svg.setPointerCapture(event.pointerId)
  })
  svg.addEventListener('pointermove', (event) => {
    if (dragged) dragged.show(Math.round((units(event) - from) / dragged.perDay))
  })
  svg.addEventListener('pointerup', () => {
    if (dragged?.days) dragged.go()
    dragged = undefined
  })
  svg.addEventListener('pointercancel', () => {
    dragged?.back()
    dragged = undefined
  })
  const holdStill = (event) => {
    if (dragged && event.cancelable) event.preventDefault() // a finger would scroll the page instead
  }
  svg.addEventListener('touchstart', holdStill, { passive: false })
  svg.addEventListener('touchmove', holdStill, { passive: false })
  svg.addEventListener('dragstart', (event) => event.preventDefault())
  svg.addEventListener('keydown', (event) => {
    const stem = event.target.closest('.stem[data-moves]')
    if (!stem) return
    const mover = moverOf(stem)
    const step = { ArrowLeft: -1, ArrowRight: 1 }[event.key]
    if (step) {
      event.preventDefault()
      mover.show(mover.days + step * (event.shiftKey ? 7 : 1))
    } else if (event.key === 'Enter' && mover.days !== 0) {
      event.preventDefault()
      mover.go()
    } else if (event.key === 'Escape' && mover.days !== 0) {
      mover.back()
    }
  })
}

// keepNames lets the names stand at the edge while the year is scrolled under them.
function keepNames(wrap) {
  const svg = wrap.querySelector('svg.year')
  const names = svg.querySelectorAll('.stem-name')
  wrap.addEventListener('scroll', () => {
    const by = (wrap.scrollLeft / svg.getBoundingClientRect().width) * svg.viewBox.baseVal.width
    for (const name of names) name.setAttribute('transform', `translate(${by} 0)`)
  })
}

export function startSeason() {
  for (const svg of document.querySelectorAll('svg.year')) watch(svg)
  for (const wrap of document.querySelectorAll('[data-year-wrap]')) {
    keepNames(wrap)
    const today = wrap.querySelector('.year-today')
    if (today && wrap.scrollWidth > wrap.clientWidth) {
      wrap.scrollLeft = today.getBoundingClientRect().left - wrap.getBoundingClientRect().left - wrap.clientWidth / 2
    }
  }
}

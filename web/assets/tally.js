// tally.js counts stems up by rung with one thumb, and steps back what was tapped last.

// sumOf adds up typed numbers; what is no number counts as none, the farm will say so.
export function sumOf(texts) {
  return texts.reduce((sum, text) => sum + (Number.parseInt(text, 10) || 0), 0)
}

export function newTally() {
  return {
    sum: 0,
    isNew: true,
    taps: [],

    init() {
      this.total()
    },
    inputs() {
      return [...this.$root.querySelectorAll('.rung-count')]
    },
    inputOf(rung) {
      return this.$root.querySelector(`[name="stems_${rung}"]`)
    },
    add(event) {
      const rung = event.currentTarget.dataset.rung
      this.change(rung, 1)
      this.taps.push(rung)
      this.isNew = false
    },
    back() {
      const rung = this.taps.pop()
      if (rung) this.change(rung, -1)
      this.isNew = this.taps.length === 0
    },
    change(rung, by) {
      const input = this.inputOf(rung)
      input.value = String(Math.max(0, sumOf([input.value]) + by))
      this.total()
    },
    total() {
      this.sum = sumOf(this.inputs().map((input) => input.value))
    },
  }
}

// school.js leads through a lesson of the stem school: one stem after the other, each answered by thumb or by key, with the reason at once.

const verdicts = { true: 'Right.', false: 'Not so.' }

export function startSchool() {
  const root = document.querySelector('[data-school]')
  if (!root) return
  const tasks = [...root.querySelectorAll('.task')]
  const answers = root.querySelector('input[name=answers]')
  const score = { right: 0, asked: 0 }
  let at = -1
  let shownAt = 0

  const show = (next) => {
    if (at >= 0) tasks[at].hidden = true
    at = next
    const task = tasks[at]
    task.hidden = false
    shownAt = performance.now()
    if (task.dataset.end !== undefined) {
      task.querySelector('.school-sum').textContent = `${score.right} of ${score.asked} right.`
    }
    if (next > 0) task.querySelector('h2').focus()
  }

  const look = (task, button) => {
    for (const svg of task.querySelectorAll('[data-look]')) svg.toggleAttribute('hidden', svg.dataset.look !== button.dataset.show) // an SVG has no property of that name
    task.querySelector('.look-words').textContent = button.dataset.words
  }

  const answer = (task, button) => {
    if (task.dataset.answered !== undefined) return
    task.dataset.answered = ''
    const { right, truth, ask } = task.dataset
    const said = button.dataset.answer
    const isRight = said === right
    score.asked += 1
    score.right += isRight
    if (ask === 'rung' && answers) {
      const seconds = Math.min(999, (performance.now() - shownAt) / 1000).toFixed(1)
      answers.value = `${answers.value} ${truth}>${said}@${seconds}`.trim()
    }
    for (const b of task.querySelectorAll('.school-choice')) {
      b.setAttribute('aria-disabled', 'true')
      b.classList.toggle('is-right', b.dataset.answer === right)
      b.classList.toggle('is-wrong', b === button && !isRight)
    }
    for (const rung of task.querySelectorAll('.reason [data-rung]')) {
      rung.classList.toggle('is-here', rung.dataset.rung === truth)
      rung.classList.toggle('is-said', ask === 'rung' && rung.dataset.rung === said && !isRight)
    }
    const reason = task.querySelector('.reason')
    reason.hidden = false
    reason.querySelector('.reason-verdict').textContent = verdicts[isRight]
    reason.scrollIntoView({ block: 'nearest' })
    reason.querySelector('[data-next]').focus({ preventScroll: true })
  }

  root.addEventListener('click', (event) => {
    const button = event.target.closest('button')
    const task = event.target.closest('.task')
    if (!button || !task) return
    if (button.dataset.answer !== undefined) answer(task, button)
    else if (button.dataset.next !== undefined) show(at + 1)
    else if (button.dataset.words !== undefined) look(task, button)
  })
  document.addEventListener('keydown', (event) => {
    if (event.target.closest('input, select, textarea') || event.ctrlKey || event.metaKey || event.altKey) return
    const button = /^[1-9]$/.test(event.key) && tasks[at].querySelectorAll('.school-choice')[Number(event.key) - 1]
    if (button) answer(tasks[at], button)
  })
  show(0)
}

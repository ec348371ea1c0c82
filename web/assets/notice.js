// notice.js: what the farm did not take is told with its reason, and with what can be done about it.
import { refusalWords } from './waiting.js'

export function notice(record, { again, away }) {
  const box = document.createElement('div')
  box.className = 'notice notice-fault'
  const words = document.createElement('p')
  words.textContent = refusalWords(record)
  const button = (label, act) => {
    const b = document.createElement('button')
    b.type = 'button'
    b.className = 'btn btn-plain'
    b.textContent = label
    b.addEventListener('click', act)
    return b
  }
  box.append(words, button('Send it again', again), button('Throw it away', away))
  return box
}

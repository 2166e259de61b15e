import '@fontsource/andika/latin-400.css'
import '@fontsource/andika/latin-700.css'
import '../styles/tokens.css'
import './away.css'

import { waitingTexts } from './waitingTexts'

/** The page that stands where a page is asked for while the server is away; the service worker has it ready. */
const LOOK = 2000 // milliseconds between two looks whether the server is back

const texts = waitingTexts(localStorage)
const unsent = document.getElementById('unsent')!
unsent.hidden = !texts.length
for (const text of texts) {
  const line = document.createElement('li')
  line.textContent = text
  unsent.querySelector('ul')!.append(line)
}

window.setInterval(() => {
  fetch('/healthz', { cache: 'no-store' }).then(
    (answer) => answer.ok && window.location.reload(),
    () => null,
  )
}, LOOK)

import { chromium } from '@playwright/test'
import { launchOptions } from './playwright.config.mjs'
const base = process.argv[2]
const b = await chromium.launch(launchOptions)
const c = await b.newContext({ viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true })
const p = await c.newPage()
for (const at of ['/', '/rounds', '/count?row=ZC1', '/plantings', '/plantings/CO1', '/plantings/CO1/cut', '/plantings/CO1/count', '/orders', '/orders/Gate%20stall', '/season', '/beds', '/seeds', '/crops', '/crops/dahlia-ball', '/farm', '/people', '/me', '/why/zinnia-tall', '/season/date', '/season/successions', '/box', '/stakes']) {
  await p.goto(base + at)
  for (let i = 0; i < 100 && await p.locator('.working').count(); i++) await p.waitForTimeout(300)
  const small = await p.evaluate(() => {
    const out = []
    for (const e of document.querySelectorAll('a[href], button, summary, select, input:not([type=hidden]), [role=button]')) {
      const r = e.getBoundingClientRect()
      if (r.width === 0 || e.closest('svg') || e.classList.contains('skip')) continue
      if (e.tagName === 'A' && getComputedStyle(e).display === 'inline' && e.closest('p, dd, label, figcaption, .quiet, .lead-line') ) continue
      const h = e.matches('input[type=radio], input[type=checkbox]') ? e.closest('label')?.getBoundingClientRect().height ?? r.height : r.height
      const after = getComputedStyle(e, '::after')
      if (h < 43.5 && after.position !== 'absolute') out.push(`${e.tagName} ${(e.className || '')} "${(e.textContent || e.name || '').trim().slice(0, 24)}" ${Math.round(r.width)}x${Math.round(h)} in ${e.parentElement.tagName}.${e.parentElement.className}`)
    }
    return [...new Set(out.map((o) => o.replace(/"[^"]*" \d+x/, '')))].slice(0, 12)
  })
  if (small.length) console.log(at, '\n   ' + small.join('\n   '))
}
await b.close()

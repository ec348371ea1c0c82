import { chromium } from 'playwright'
const [,, base, ...jobs] = process.argv
const b = await chromium.launch({ executablePath: '/usr/bin/chromium', args: ['--no-sandbox','--disable-gpu','--disable-background-networking'] })
for (const j of jobs) {
  const [path, w, out, full] = j.split('=')
  const p = await b.newPage({ viewport: { width: +w, height: +w < 500 ? 844 : 800 } })
  p.on('console', m => { if (m.type() === 'error') console.log('console', path, m.text()) })
  p.on('pageerror', e => console.log('pageerror', path, e.message))
  await p.goto(base + path); await p.waitForTimeout(150)
  if (full === 'open') await p.evaluate(() => document.querySelectorAll('details').forEach((d, i) => { if (i < 2) d.open = true }))
  await p.screenshot({ path: out, fullPage: full === 'full' })
  await p.close()
}
await b.close()

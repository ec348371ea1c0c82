import { chromium } from '@playwright/test'
import { launchOptions } from './playwright.config.mjs'
const [,, base, ...list] = process.argv
const b = await chromium.launch(launchOptions)
for (const item of list) {
  const [name, path, kind, full] = item.split('~')
  const c = await b.newContext(kind === 'phone' ? { viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true, deviceScaleFactor: 1 } : { viewport: { width: 1280, height: 800 } })
  const p = await c.newPage()
  await p.goto(base + path)
  for (let i = 0; i < 100 && await p.locator('.working').count(); i++) await p.waitForTimeout(300)
  await p.waitForTimeout(300)
  await p.screenshot({ path: `/tmp/shots/${name}.png`, fullPage: full === 'full' })
  await c.close()
}
await b.close()

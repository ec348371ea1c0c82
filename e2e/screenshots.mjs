// Takes the pictures in docs/screenshots from a fresh demo farm: npm run screenshots (after go build -o e2e/bin/dewcount ./cmd/dewcount).
import { chromium } from '@playwright/test'
import { spawn } from 'node:child_process'
import { worked } from './farm.mjs'

const farm = spawn('./bin/dewcount', ['demo', '--addr', '127.0.0.1:0'], { cwd: import.meta.dirname })
const address = await new Promise((resolve) => {
  farm.stdout.on('data', (text) => resolve(String(text).match(/http:\/\/\S+/)[0]))
})
const browser = await chromium.launch({ executablePath: '/usr/bin/chromium-headless-shell', args: ['--no-sandbox', '--disable-gpu', '--disable-background-networking'] })
const desk = await browser.newPage({ viewport: { width: 1280, height: 800 } })
const phone = await browser.newPage({ viewport: { width: 390, height: 844 } })
const picture = (page, name) => page.screenshot({ path: new URL(`../docs/screenshots/${name}.png`, import.meta.url).pathname })

await desk.goto(address + '/')
for (; await desk.locator('.todo').count() === 0; await desk.reload()) await desk.waitForTimeout(500) // until the rounds are worked out
for (const [name, path] of Object.entries({
  morning: '/', why: '/why/zinnia-tall?pick=2026-07-17', planting: '/plantings/CO1', orders: '/orders', ladders: '/ladders',
  rounds: '/rounds', cut: '/cut', store: '/store', season: '/season', school: '/school', review: '/review',
  successions: '/season/successions?asked=1&crop=cosmos-single&stems=60&from=2027-07-05&until=2027-09-19&existing=1&pinch=1', date: '/season/date?asked=1&crop=sunflower-single&stems=40&on=2027-07-24&use=event', beds: '/beds', seeds: '/seeds?year=2027', crop: '/crops/dahlia-ball',
})) {
  await desk.goto(address + path)
  await worked(desk)
  if (name === 'morning') await desk.locator('details.crop summary').first().click()
  await picture(desk, name)
}
for (const [name, path] of Object.entries({ 'morning-phone': '/', 'count-phone': '/count?row=ZC1', 'cut-phone': '/cut' })) {
  await phone.goto(address + path, { waitUntil: 'networkidle' })
  await picture(phone, name)
}
await browser.close()
farm.kill('SIGTERM')

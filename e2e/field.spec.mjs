// The walk through the field on a phone, over https by the farm's own authority: with no signal, with a session that ended, with a
// record that is refused.
import { expect, test } from '@playwright/test'
import AxeBuilder from '@axe-core/playwright'
import { createHash, X509Certificate } from 'node:crypto'
import { execFileSync, spawn } from 'node:child_process'
import { mkdirSync, readFileSync } from 'node:fs'
import { launchOptions } from './playwright.config.mjs'

test.skip(({ isMobile }) => !isMobile, 'the field is walked with a phone')

const start = (...words) => new Promise((resolve, reject) => {
  const farm = spawn('./bin/dewcount', words, { cwd: import.meta.dirname })
  let said = ''
  farm.stdout.on('data', (text) => {
    said += text
    const found = said.match(/Dew Count is at (\S+)/)
    if (found) resolve({ address: found[1], stop: (signal = 'SIGTERM') => new Promise((ended) => { farm.on('exit', ended); farm.kill(signal) }) })
  })
  farm.on('exit', (status) => reject(new Error(`dewcount ${words} ended with ${status}: ${said}`)))
})

// recorded reads the notebook as it stands in the database.
function recorded(db, file, info) {
  const folder = info.outputPath(`notebook-${Math.random()}`)
  execFileSync('./bin/dewcount', ['export', '--db', db, folder], { cwd: import.meta.dirname })
  return readFileSync(`${folder}/${file}`, 'utf8').trim().split('\n')
}

// aPhone lets a new helper in by a link and returns their phone.
async function aPhone(browser, address, link, name) {
  const phone = await (await browser.newContext({ viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true })).newPage()
  await phone.goto(address + link)
  await phone.getByLabel('Your name').fill(name)
  await phone.getByLabel('A password').fill('hedge bucket lantern')
  await phone.getByRole('button', { name: 'Join' }).tap()
  await expect(phone.locator('.person')).toHaveText(name)
  return phone
}

async function links(db, n) {
  const demo = await start('demo', '--addr', '127.0.0.1:0', '--db', db)
  const { chromium } = await import('@playwright/test')
  const browser = await chromium.launch(launchOptions)
  const page = await browser.newPage()
  const made = []
  for (let i = 0; i < n; i++) {
    await page.goto(demo.address + '/people')
    await page.getByRole('button', { name: 'Make a link' }).click()
    made.push(new URL(await page.locator('.link-address a').getAttribute('href')).pathname)
  }
  await browser.close()
  await demo.stop()
  return made
}

// secure starts the farm by https, and a browser that takes its authority's key for good by its hash.
async function secure(db, addr = '127.0.0.1:0') {
  const farm = await start('serve', '--https', '--addr', addr, '--db', db)
  const key = new X509Certificate(readFileSync(`${db}.tls/authority.crt`)).publicKey.export({ type: 'spki', format: 'der' })
  const hash = createHash('sha256').update(key).digest('base64')
  const { chromium } = await import('@playwright/test')
  const browser = await chromium.launch({ ...launchOptions, args: [...launchOptions.args, `--ignore-certificate-errors-spki-list=${hash}`] })
  return { farm, browser }
}

const tapped = async (phone, taps) => {
  for (const rung of taps) await phone.getByRole('button', { name: `One more ${rung}:` }).tap()
}

test('what is counted without signal is sent once, in order, after a reload and a dead server', async ({}, info) => {
  mkdirSync(info.outputDir, { recursive: true })
  const db = info.outputPath('farm.db')
  const [link] = await links(db, 1)
  let { farm, browser } = await secure(db)
  const port = new URL(farm.address).port
  const before = recorded(db, 'counts.csv', info).length
  const phone = await aPhone(browser, farm.address, link, 'Sorrel')
  await phone.goto(farm.address + '/count?row=ZC1')
  await expect(phone.locator('#walk')).toBeVisible()
  expect((await new AxeBuilder({ page: phone }).analyze()).violations.map((v) => v.id)).toEqual([])
  await phone.evaluate(() => navigator.serviceWorker.ready)
  await phone.reload() // now the page comes through the worker, which keeps it
  await expect(phone.locator('#walk-waiting')).toHaveText('All is sent')

  await phone.context().setOffline(true)
  let taps = 0
  await phone.getByRole('button', { name: 'by 5' }).tap(); taps++
  for (const rung of ['tight', 'colour', 'lifting', 'third', 'half', 'open', 'over', 'spent']) {
    await phone.getByRole('button', { name: `One more ${rung}:` }).tap(); taps++
  }
  await expect(phone.locator('#walk-total')).toContainText('40 counted')
  await phone.getByRole('button', { name: 'Step back' }).tap(); taps++
  await expect(phone.locator('#walk-total')).toContainText('35 counted')
  await phone.getByRole('button', { name: 'Record, next row' }).dblclick(); taps++ // pressed twice
  expect(taps, 'a row of eight rungs').toBeLessThan(20)
  await expect(phone.locator('#walk-waiting')).toContainText('1 waiting for signal') // once, and nothing of the next row
  await expect(phone.getByLabel('Row', { exact: true })).not.toHaveValue('ZC1')

  await phone.getByLabel('Row', { exact: true }).selectOption('SN2')
  await phone.getByRole('button', { name: 'by 5' }).tap()
  await tapped(phone, ['tight', 'tight', 'third'])
  await farm.stop('SIGKILL') // and the farm's machine loses power meanwhile
  await phone.reload()
  await expect(phone.locator('#walk')).toBeVisible()
  await expect(phone.getByLabel('Row', { exact: true })).toHaveValue('SN2')
  await expect(phone.locator('#walk-total')).toContainText('3 counted') // a tally that was begun is still there
  await phone.getByText('Also seen').tap()
  await phone.getByRole('button', { name: 'Most plants are up' }).tap()
  await phone.getByLabel('Spoiled stems').fill('1')
  await phone.getByLabel('By what').fill('earwigs')
  await phone.getByRole('button', { name: 'Record, next row' }).tap()
  await expect(phone.locator('#walk-waiting')).toContainText('4 waiting')

  farm = await start('serve', '--https', '--addr', `127.0.0.1:${port}`, '--db', db)
  await phone.context().setOffline(false)
  await phone.evaluate(() => dispatchEvent(new Event('online')))
  await expect(phone.locator('#walk-waiting')).toHaveText('All is sent')
  await browser.close()
  await farm.stop()
  const counts = recorded(db, 'counts.csv', info).slice(before === 0 ? 0 : 1).filter((line) => line.includes(',Sorrel,'))
  expect(counts.filter((line) => line.includes(',ZC1,')).map((line) => line.split(',').slice(3, 5).join(' '))).toEqual(['tight 5', 'colour 5', 'lifting 5', 'third 5', 'half 5', 'open 5', 'over 5'])
  expect(counts.filter((line) => line.includes(',SN2,')).map((line) => line.split(',').slice(3, 5).join(' '))).toEqual(['tight 2', 'third 1'])
  expect(recorded(db, 'scouting.csv', info).filter((line) => line.startsWith('SN2,'))).toHaveLength(1)
  expect(recorded(db, 'events.csv', info).filter((line) => line.startsWith('SN2,emerged,2026-07-09'))).toHaveLength(1)
  expect(recorded(db, 'made.csv', info).filter((line) => line.startsWith('counts,') && line.endsWith(',Sorrel')).length).toBeGreaterThanOrEqual(2)
})

test('after one visit the pages of the field open without signal, with the hour of what they show', async ({}, info) => {
  mkdirSync(info.outputDir, { recursive: true })
  const db = info.outputPath('farm.db')
  const made = await links(db, 1)
  const { farm, browser } = await secure(db)
  const phone = await aPhone(browser, farm.address, made[0], 'Sorrel')
  await expect.poll(() => phone.evaluate(async () => Boolean(await caches.match('/store'))), { timeout: 180_000 }).toBe(true)
  await phone.waitForTimeout(1500) // the drawings of the last page
  await phone.context().setOffline(true)
  await farm.stop()
  for (const [path, heading] of [['/cut', /^Cut of /], ['/count', /^Count$/], ['/rounds', /^Rounds$/], ['/store', /^Store$/], ['/', /^Pick of /]]) {
    await phone.goto(farm.address + path)
    await expect(phone.getByRole('heading', { level: 1 })).toHaveText(heading)
    await expect(phone.locator('.kept-page')).toContainText(/No signal: this is the farm as it stood on \w+ \d+ \w+, \d+:\d\d\./)
    await expect(phone.locator('.kept-page')).toBeVisible()
    expect(await phone.evaluate(() => getComputedStyle(document.querySelector('.views')).position), 'its style came along').toBe('fixed')
  }
  await phone.goto(farm.address + '/cut')
  await expect(phone.locator('.cut-row[open]')).toHaveCount(1) // its scripts work
  await phone.goto(farm.address + '/count?row=ZC1')
  await expect(phone.getByRole('button', { name: 'One more open:' })).toBeVisible()
  await browser.close()
})

test('two people count one row, one is signed out, one count is refused: nothing is lost', async ({}, info) => {
  mkdirSync(info.outputDir, { recursive: true })
  const db = info.outputPath('farm.db')
  const made = await links(db, 2)
  const { farm, browser } = await secure(db)
  const [one, two] = [await aPhone(browser, farm.address, made[0], 'Sorrel'), await aPhone(browser, farm.address, made[1], 'Linnet')]
  for (const [phone, taps] of [[one, ['tight', 'open']], [two, ['tight', 'tight', 'open']]]) {
    await phone.goto(farm.address + '/count?row=ZC1')
    await tapped(phone, taps)
    await phone.getByRole('button', { name: 'Record, next row' }).tap()
    await expect(phone.locator('#walk-waiting')).toHaveText('All is sent')
  }

  await one.getByLabel('Row', { exact: true }).selectOption('ZL1') // a zinnia, whose neck is tried
  await one.getByText('One stem in the hand').tap()
  await expect(one.locator('#walk-fails')).toContainText('If the neck flops: wait about')
  const open = one.locator('#walk-stage li[data-rung=open] .walk-call')
  await expect(open).toContainText(/^(Cut now|Wait for the next pick)/)
  await expect(one.locator('#walk-stage li[data-rung=spent] .walk-call')).toHaveText('Discard: past it; cut it off, so that the plant goes on.')
  await one.getByLabel('For', { exact: true }).selectOption('a florist')
  await expect(one.locator('#walk-stage li[data-rung=tight] .walk-call')).toContainText('too tight for a florist')
  await tapped(one, ['open', 'open', 'open'])
  await one.getByLabel('open', { exact: true }).fill('2')
  await one.getByRole('button', { name: 'Record, next row' }).tap()
  await expect(one.locator('#walk-waiting')).toHaveText('All is sent')
  await expect(one.getByRole('link', { name: 'Correct the count of ZL1' })).toBeVisible()

  await one.getByLabel('Row', { exact: true }).selectOption('AM2')
  await one.getByRole('button', { name: 'Record, next row' }).tap()
  await one.getByRole('button', { name: 'Nothing in bud: record that' }).tap()
  await expect(one.getByRole('link', { name: 'Correct the count of AM2' })).toBeVisible()
  await one.getByLabel('Row', { exact: true }).selectOption('CO1')
  await one.getByLabel('Stems on open').fill('90000')
  await one.getByRole('button', { name: 'Record, next row' }).tap()
  await expect(one.locator('#walk-refused')).toContainText('cannot stand there')
  await one.reload()
  await expect(one.locator('#walk-refused')).toContainText('Not taken, kept on this phone: counts of CO1')
  await one.getByRole('button', { name: 'Throw it away' }).tap()
  await expect(one.locator('#walk-refused')).toBeEmpty()

  // A phone that is full says so and keeps the tally where it stands; with room again it is one count.
  await two.evaluate(() => {
    const add = IDBObjectStore.prototype.add
    IDBObjectStore.prototype.add = () => { IDBObjectStore.prototype.add = add; throw new DOMException('full', 'QuotaExceededError') }
  })
  await two.getByLabel('Row', { exact: true }).selectOption('CO2')
  await tapped(two, ['half', 'half'])
  await two.getByRole('button', { name: 'Record, next row' }).tap()
  await expect(two.getByRole('alert')).toContainText('could not keep it')
  await expect(two.locator('#walk-total')).toContainText('2 counted')
  await expect(two.getByLabel('Row', { exact: true })).toHaveValue('CO2')
  await two.getByRole('button', { name: 'Record, next row' }).tap()
  await expect(two.getByRole('link', { name: 'Correct the count of CO2' })).toBeVisible() // it is sent
  await expect(two.getByLabel('Row', { exact: true })).not.toHaveValue('CO2')
  await expect(two.locator('#walk-pick option[value=CO2]')).toContainText('✓')

  await two.context().clearCookies()
  await two.getByLabel('Row', { exact: true }).selectOption('SN2')
  await tapped(two, ['third'])
  await two.getByRole('button', { name: 'Record, next row' }).tap()
  await expect(two.locator('#walk-waiting')).toContainText('1 waiting: sign in to send')
  await two.getByRole('link', { name: 'Sign in' }).tap()
  await two.getByLabel('Your name').fill('Linnet')
  await two.getByLabel('Password').fill('hedge bucket lantern')
  await two.getByRole('button', { name: 'Sign in' }).tap()
  await expect(two.locator('#walk-waiting')).toHaveText('All is sent')
  await browser.close()
  await farm.stop()
  const counts = recorded(db, 'counts.csv', info)
  const of = (who, row) => counts.filter((line) => line.includes(`,${row},`) && line.includes(`,${who},`)).map((line) => line.split(',').slice(3, 5).join(' '))
  expect(of('Sorrel', 'ZC1')).toEqual(['tight 1', 'open 1'])
  expect(of('Linnet', 'ZC1')).toEqual(['tight 2', 'open 1'])
  expect(of('Linnet', 'SN2')).toEqual(['third 1'])
  expect(of('Linnet', 'CO2')).toEqual(['half 2'])
  expect(of('Sorrel', 'CO1')).toEqual([])
  expect(of('Sorrel', 'AM2')).toEqual(['tight 0'])
  expect(counts.find((line) => line.includes(',ZL1,') && line.includes(',Sorrel,')).split(',').slice(3, 6).join(' '), 'two of three necks held').toEqual('open 3 2')
})

// farm.mjs gives each test a farm on a port of its own, and a page whose console and requests are watched.
import { test as base, expect } from '@playwright/test'
import AxeBuilder from '@axe-core/playwright'
import { copyFileSync, mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { execFileSync, spawn } from 'node:child_process'

// open starts the program on a database, and closes it with what it said went wrong.
async function open(kind, db) {
  const farm = spawn('./bin/dewcount', [kind, '--addr', '127.0.0.1:0', '--db', db], { cwd: import.meta.dirname })
  let log = ''
  farm.stderr.on('data', (text) => { log += text })
  const address = await new Promise((resolve, reject) => {
    let said = ''
    farm.stdout.on('data', (text) => {
      said += text
      const found = said.match(/http:\/\/\S+/)
      if (found) resolve(found[0])
    })
    farm.on('exit', (status) => reject(new Error(`the program ended with ${status}: ${said}${log}`)))
  })
  const close = async () => {
    const wrong = log
    const ended = new Promise((resolve) => farm.on('exit', resolve))
    farm.kill('SIGTERM')
    await ended
    return wrong
  }
  return { address, close }
}

export const test = base.extend({
  kind: ['demo', { option: true }], // or serve, for an empty farm
  notebook: [null, { option: true }], // files of a notebook by their names, which the farm has to begin with

  // The demo's database, grown once for all tests of a worker: growing it takes a quarter of what its first page does.
  grown: [async ({}, use) => {
    const folder = mkdtempSync(`${tmpdir()}/dewcount-grown-`)
    const farm = await open('demo', `${folder}/farm.db`)
    await farm.close()
    await use(`${folder}/farm.db`)
    rmSync(folder, { recursive: true })
  }, { scope: 'worker' }],

  address: async ({ kind, notebook, grown }, use, info) => {
    mkdirSync(info.outputDir, { recursive: true })
    if (notebook) {
      const folder = info.outputPath('notebook')
      mkdirSync(folder, { recursive: true })
      for (const [name, text] of Object.entries(notebook)) writeFileSync(`${folder}/${name}`, text)
      execFileSync('./bin/dewcount', ['import', '--db', info.outputPath('farm.db'), folder], { cwd: import.meta.dirname })
    }
    if (kind === 'demo') copyFileSync(grown, info.outputPath('farm.db'))
    const farm = await open(kind, info.outputPath('farm.db'))
    await fetch(farm.address) // it is answered once the farm is worked out, and only a browser's page says so before
    await use(farm.address)
    expect(await farm.close(), 'what the program said went wrong').toBe('')
  },

  page: async ({ page, address }, use) => {
    const wrong = []
    page.on('pageerror', (error) => wrong.push(`page error: ${error.message}`))
    page.on('console', (message) => {
      // The browser itself writes a line for each answer of 4xx and for each call without signal, which some tests provoke.
      const ofTheAnswer = /Failed to load resource: (the server responded with a status of 4\d\d|net::ERR_INTERNET_DISCONNECTED)/
      if (message.type() === 'error' && !ofTheAnswer.test(message.text())) wrong.push(`console: ${message.text()}`)
    })
    page.on('request', (request) => {
      if (!request.url().startsWith(address) && !request.url().startsWith('data:')) wrong.push(`request to ${request.url()}`)
    })
    await use(page)
    expect(wrong).toEqual([])
  },
})

export { expect }

// worked waits until the page shows its answer, not how far it is, and its scripts listen: keys pressed before that are lost.
export async function worked(page) {
  const done = () => document.readyState === 'complete' && !document.querySelector('.working')
  await expect.poll(() => page.evaluate(done).catch(() => false), { timeout: 180_000 }).toBe(true) // between two reloads nothing can be asked
}

// accessible runs axe on the page as it is; to gather what is in order as well would take three times as long.
export async function accessible(page) {
  await worked(page)
  const { violations } = await new AxeBuilder({ page }).options({ resultTypes: ['violations'] }).setLegacyMode(true).analyze()
  expect(violations.map((v) => `${v.id}: ${v.nodes.map((n) => n.target.join(' ')).join(', ')}`)).toEqual([])
}

// fits holds that nothing sticks out of the page sideways.
export async function fits(page) {
  await worked(page)
  const [wide, there] = await page.evaluate(() => [document.documentElement.scrollWidth, document.documentElement.clientWidth])
  expect(wide, 'the page is wider than its window').toBeLessThanOrEqual(there)
}

// farm.mjs gives each test a farm on a port of its own, and a page whose console and requests are watched.
import { test as base, expect } from '@playwright/test'
import AxeBuilder from '@axe-core/playwright'
import { mkdirSync, writeFileSync } from 'node:fs'
import { execFileSync, spawn } from 'node:child_process'

export const test = base.extend({
  kind: ['demo', { option: true }], // or serve, for an empty farm
  notebook: [null, { option: true }], // files of a notebook by their names, which the farm has to begin with

  address: async ({ kind, notebook }, use, info) => {
    mkdirSync(info.outputDir, { recursive: true })
    if (notebook) {
      const folder = info.outputPath('notebook')
      mkdirSync(folder, { recursive: true })
      for (const [name, text] of Object.entries(notebook)) writeFileSync(`${folder}/${name}`, text)
      execFileSync('./bin/dewcount', ['import', '--db', info.outputPath('farm.db'), folder], { cwd: import.meta.dirname })
    }
    const words = [kind, '--addr', '127.0.0.1:0', '--db', info.outputPath('farm.db')]
    const farm = spawn('./bin/dewcount', words, { cwd: import.meta.dirname })
    let log = '' // what the program says went wrong
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
    await use(address)
    const wrong = log
    const ended = new Promise((resolve) => farm.on('exit', resolve))
    farm.kill('SIGTERM')
    await ended
    expect(wrong, 'what the program said went wrong').toBe('')
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

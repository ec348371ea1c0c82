// The rounds of the week, the people of the farm, the ladders, the stakes: on desk and phone.
import { test, expect, accessible, fits, worked } from './farm.mjs'

const jobs = (page) => page.locator('section.shift').first()

test('a job is done, undone, moved, given and dropped', async ({ page, address }) => {
  await page.goto(address + '/rounds')
  await worked(page)
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('Rounds')
  await expect(jobs(page)).toContainText('Water by hand')
  await accessible(page)
  await fits(page)
  const done = page.getByRole('button', { name: 'Water by hand SU7: done' })
  await done.click()
  await expect(page.getByRole('status').first()).toContainText('Job recorded')
  await worked(page)
  await expect(jobs(page)).not.toContainText('Water by hand')
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(page.getByRole('status').first()).toContainText('put back')
  await page.goto(address + '/rounds')
  await worked(page)
  await expect(jobs(page)).toContainText('Water by hand')

  const thin = jobs(page).locator('li', { hasText: 'SU6' }).filter({ hasText: 'final distance' })
  await thin.getByText('Else').click()
  await thin.getByLabel('Who does it').selectOption('Tam')
  await thin.getByRole('button', { name: 'Give' }).click()
  await worked(page)
  await page.goto(address + '/rounds?person=Tam')
  await worked(page)
  await expect(page.locator('.jobs').first()).toContainText('SU6')
  await expect(page.getByText('SU7')).toHaveCount(0)
  await accessible(page)
  const hers = page.locator('.jobs li', { hasText: 'SU6' }).first()
  await hers.getByText('Else').click()
  await hers.getByLabel('Move to').fill('2026-07-11')
  await hers.getByRole('button', { name: 'Move' }).click()
  await worked(page)
  await page.goto(address + '/rounds')
  await worked(page)
  const saturday = page.locator('section.shift', { hasText: 'Sat 11 July' })
  await expect(saturday).toContainText('SU6')
  await saturday.locator('details.group', { hasText: 'Thin to the final distance' }).locator('summary').first().click()
  const moved = saturday.locator('li', { hasText: 'SU6' }).filter({ hasText: 'moved to Sat 11 July' })
  await moved.getByRole('button', { name: 'drop' }).click()
  await worked(page)
  await expect(page.locator('section.shift', { hasText: 'Sat 11 July' })).not.toContainText('Thin to the final distance')
  await page.goto(address + '/')
  await expect(page.getByRole('heading', { name: 'Today\'s rounds' })).toBeVisible()
  await fits(page)
})

test('the whole group is done at once, and the calendar has the rounds', async ({ page, address, isMobile }) => {
  test.skip(isMobile, 'as at the desk')
  await page.goto(address + '/rounds')
  await worked(page)
  const together = page.locator('button[aria-label*=": all "]') // hidden until its group is opened
  const groups = page.locator('details.group').filter({ has: together })
  const names = await groups.locator('.group-name').allInnerTexts()
  const rows = await groups.first().locator('.group-rows').innerText()
  expect(rows).toContain(', ')
  await groups.first().locator('summary').first().click()
  await groups.first().locator(together).click()
  await worked(page)
  await expect(groups).toHaveCount(names.length - 1)
  await page.getByRole('button', { name: 'Undo' }).click() // all of them
  await worked(page)
  await expect(groups.locator('.group-name')).toHaveText(names)
  await expect(groups.first().locator('.group-rows')).toHaveText(rows)
  const calendar = await (await page.request.get(address + '/calendar.ics')).text()
  expect(calendar).toContain('SUMMARY:Water: ')
  expect(calendar).toContain('SUMMARY:Thin to the final distance SU6')
})

test('people see what they may', async ({ page, address }) => {
  await page.goto(address + '/people')
  await accessible(page)
  await fits(page)
  await page.getByRole('button', { name: 'Make a link' }).click()
  await expect(page.locator('.link-address')).toContainText('/join/')
  await expect(page.locator('.qr')).toBeVisible()
  await accessible(page)
  await page.goto(address + '/me')
  await accessible(page)
  await page.getByRole('button', { name: 'Make an address' }).click()
  await expect(page.locator('.link-address')).toContainText('/calendar/')
  await page.getByRole('button', { name: 'Sign out', exact: true }).click()
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('Sign in')
  await accessible(page)
  await page.goto(address + '/orders')
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('Sign in')
  await page.getByRole('button', { name: 'Old Brock, reader' }).click()
  await expect(page.getByRole('heading', { level: 1 })).toContainText('Pick of')
  await expect(page.getByRole('navigation', { name: 'Views' }).getByRole('link', { name: 'Count' })).toHaveCount(0)
  await page.goto(address + '/plantings/ZC1/cut')
  await expect(page.locator('main')).toContainText('owner and the crew')
})

test('pests, a spray and its waiting time, stakes and devices', async ({ page, address }) => {
  await page.goto(address + '/plantings/ZC1/scout')
  await accessible(page)
  await page.getByLabel('What was seen').fill('earwigs')
  await page.getByLabel('Stems looked at').fill('20')
  await page.getByLabel('Spoiled among them').fill('25')
  await page.getByRole('button', { name: 'Record it' }).click()
  await expect(page.locator('#spoiled-fault')).toContainText('cannot be')
  await page.getByLabel('Spoiled among them').fill('5')
  await page.getByRole('button', { name: 'Record it' }).click()
  await expect(page.getByRole('status').first()).toContainText('Scouting recorded')
  await expect(page.getByText('earwigs: 5 of 20 stems spoiled')).toBeVisible()
  await page.goto(address + '/plantings/ZC1/spray')
  await expect(page.locator('main')).toContainText('not while bees fly')
  await accessible(page)
  await page.getByLabel('Product').fill('Soap of the house')
  await page.getByLabel('Days until it may be cut').fill('3')
  await page.getByLabel('Hours until anybody').fill('0')
  await page.getByRole('button', { name: 'Record the spray' }).click()
  await expect(page.getByText('Do not cut ZC1 before Sun 12 July').first()).toBeVisible()
  await page.goto(address + '/plantings/ZC1/cut')
  await expect(page.getByRole('alert')).toContainText('Do not cut ZC1 before Sun 12 July')
  await page.goto(address + '/count?row=ZC1')
  await expect(page.locator('#walk-spray')).toContainText('Do not cut ZC1')
  for (const path of ['/stakes', '/box', '/ladders']) {
    await page.goto(address + path)
    await accessible(page)
    await fits(page)
  }
})

// Every form's rungs are drawn 32 px wide in black and white: each must differ from its neighbours in a good part of its ink.
test('each rung is told apart from its neighbours as a thumbnail', async ({ page, address, isMobile }) => {
  test.skip(isMobile, 'drawn alike everywhere')
  await page.goto(address + '/ladders')
  const sheets = await page.locator('.stage use').evaluateAll((uses) => [...new Set(uses.map((use) => use.getAttribute('href').split('#')[0]))])
  expect(sheets).toHaveLength(19)
  const apart = await page.evaluate(async (sheets) => {
    const width = 32
    const height = 38
    const found = {}
    for (const sheet of sheets) {
      const file = new DOMParser().parseFromString(await (await fetch(sheet)).text(), 'image/svg+xml')
      const inks = []
      for (const symbol of file.querySelectorAll('symbol')) {
        const text = `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}" viewBox="${symbol.getAttribute('viewBox')}" stroke-linejoin="round">${symbol.innerHTML}</svg>`
          .replaceAll('currentColor', '#000').replaceAll('var(--petal,#fff)', '#fff')
        const image = new Image()
        image.src = `data:image/svg+xml,${encodeURIComponent(text)}`
        await image.decode()
        const canvas = Object.assign(document.createElement('canvas'), { width, height })
        const context = canvas.getContext('2d')
        context.fillStyle = '#fff'
        context.fillRect(0, 0, width, height)
        context.drawImage(image, 0, 0)
        const { data } = context.getImageData(0, 0, width, height)
        inks.push(Array.from({ length: width * height }, (_, i) => data[4 * i] < 128))
      }
      found[sheet.match(/ladder\/(.*)\.svg/)[1]] = inks.slice(1).map((ink, k) => {
        const either = ink.filter((dark, i) => dark || inks[k][i]).length
        return ink.filter((dark, i) => dark !== inks[k][i]).length / either
      })
    }
    return found
  }, sheets)
  const close = Object.entries(apart).flatMap(([form, parts]) => parts.map((part, k) => ({ form, rungs: `${k} and ${k + 1}`, part }))).filter(({ part }) => part < 0.25)
  expect(close).toEqual([])
})

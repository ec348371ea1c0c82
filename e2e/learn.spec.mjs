// Learning: notes that are found again, the stem school, year against year.
import { test, expect, accessible, fits, worked } from './farm.mjs'

test('a note is written where it belongs, and found again by a question', async ({ page, address }) => {
  await page.goto(address + '/plantings/ZC1')
  await worked(page)
  await page.getByRole('link', { name: 'A note', exact: true }).click()
  await worked(page)
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('A note on ZC1 Zinnia coral')
  await page.getByRole('button', { name: 'Keep the note' }).click()
  await worked(page)
  await expect(page.locator('.invalid-feedback')).toContainText('Write what is worth keeping')
  await page.getByLabel('Note', { exact: true }).fill('Ohrwürmer in the west half 🐛; "bags" too late / next year sooner')
  await accessible(page)
  await fits(page)
  await page.getByRole('button', { name: 'Keep the note' }).click()
  await worked(page)
  await expect(page.locator('.story')).toContainText('Ohrwürmer in the west half 🐛')

  await page.getByLabel('Jump to a row, an order or a view').fill('coral ohrwurmer')
  await page.getByLabel('Jump to a row, an order or a view').press('Enter')
  await worked(page)
  await expect(page.getByRole('region', { name: 'Notes' })).toContainText('"bags" too late / next year sooner')
  await page.getByLabel('Look for').fill('what did we write about the white dahlia last August?')
  await page.getByLabel('Look for').press('Enter')
  await worked(page)
  await expect(page.getByRole('region', { name: 'Notes' }).locator('mark')).toHaveText('White')
  await expect(page.getByRole('region', { name: 'Notes' })).toContainText('14 August 2025')
  await accessible(page)
  await fits(page)
})

test('a lesson is learned by keys alone, with the reason at once, and kept', async ({ page, address }) => {
  await page.goto(address + '/school')
  await worked(page)
  await accessible(page)
  await fits(page)
  const task = () => page.locator('.task:not([hidden])')
  let asked = 0
  for (; await task().locator('.school-choice').count(); asked += 1) {
    const { right, ask, truth } = await task().evaluate((t) => ({ ...t.dataset }))
    for (const look of await task().locator('[data-show]').all()) {
      await look.click()
      await expect(task().locator('.specimen-look:not([hidden])')).toHaveCount(1)
      await expect(task().locator('.look-words')).toHaveText(await look.getAttribute('data-words'))
    }
    const choices = await task().locator('.school-choice').evaluateAll((all) => all.map((b) => b.dataset.answer))
    const wrong = asked % 4 === 0 // now and then something else than what is right
    const nth = wrong ? (choices.indexOf(right) + 1) % choices.length : choices.indexOf(right)
    await page.waitForTimeout(900) // as long as a look takes
    await page.keyboard.press(String(nth + 1))
    await expect(task().locator('.reason-verdict')).toHaveText(wrong ? 'Not so.' : 'Right.')
    await expect(task().locator('.reason > p').nth(1)).not.toHaveText('')
    if (ask !== 'stems') await expect(task().locator('.reason .is-here')).toHaveAttribute('data-rung', truth)
    if (asked === 0) await accessible(page)
    await page.keyboard.press('Enter') // the next stands under the finger already
  }
  expect(asked).toBe(16)
  await expect(task().locator('.school-sum')).toHaveText('12 of 16 right.')
  await page.getByLabel('The forecast may read my counts').check()
  await accessible(page)
  await page.getByRole('button', { name: 'Keep the lesson' }).click()
  await worked(page)
  await expect(page.getByRole('status').first()).toContainText('Lesson recorded')
  await expect(page.getByRole('heading', { name: 'Your eye' })).toBeVisible()
  await expect(page.locator('#eye-heading + p')).toContainText('Too few answers yet')
  await page.goto(address + '/school?more=1')
  await worked(page)
  await expect(task().locator('.task-place')).toHaveText('1 of 16')
})

test('years stand side by side', async ({ page, address }) => {
  await page.goto(address + '/years')
  await worked(page)
  await expect(page.getByRole('row', { name: /^Stems cut/ }).first()).toContainText('14463')
  await expect(page.getByRole('row', { name: /^Zinnia, tall double/ })).toContainText(/a plant, .* to 7 July/)
  await accessible(page)
  await fits(page)
})

test('a plan is carried over into the next year, and taken back', async ({ page, address }) => {
  await page.goto(address + '/season/carry')
  await worked(page)
  await accessible(page)
  await fits(page)
  const boxes = page.getByRole('checkbox')
  const all = await boxes.count()
  for (let i = 2; i < all; i += 1) await boxes.nth(i).uncheck()
  await page.getByRole('button', { name: 'Carry the chosen ones over' }).click()
  await worked(page)
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('Season 2027')
  await page.getByRole('button', { name: 'Undo' }).click()
  await worked(page)
  await page.goto(address + '/season/carry')
  await worked(page)
  await expect(boxes).toHaveCount(all)
})

test('a lesson without signal waits on the phone and is sent once it is back', async ({ page, context, address }) => {
  await page.goto(address)
  await page.evaluate(() => navigator.serviceWorker.ready)
  await page.goto(address + '/school')
  await expect.poll(() => page.evaluate(async () => Boolean(await caches.match('/school'))), { timeout: 180_000 }).toBe(true)
  await context.setOffline(true)
  await page.goto(address + '/school')
  for (let i = 0; i < 16; i += 1) {
    await page.keyboard.press('1')
    await page.keyboard.press('Enter')
  }
  await page.getByRole('button', { name: 'Keep the lesson' }).click()
  await expect(page.locator('#field-bar')).toContainText('1 waiting for signal')
  await context.setOffline(false)
  await expect(async () => {
    await page.goto(address + '/school')
    await expect(page.getByRole('heading', { name: 'Your eye' })).toBeVisible({ timeout: 1000 })
  }).toPass({ timeout: 180_000 })
})

test('the year is looked back on, and a crop card changes only when the grower says so', async ({ page, address }) => {
  await page.goto(address + '/years')
  await worked(page)
  await page.getByRole('link', { name: 'Expected beside what came' }).click()
  await worked(page)
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('Looking back on 2026')
  const stems = (await page.locator('.answer').textContent()).match(/^(\d+) stems came/)[1]
  const crops = await page.getByRole('region', { name: 'Crop by crop, the table' }).locator('tbody td.number').allTextContents()
  expect(crops.reduce((sum, text) => sum + Number(text.match(/^\d+/)[0]), 0)).toBe(Number(stems))
  await page.getByText('Planting by planting', { exact: true }).click()
  await accessible(page)
  await fits(page)

  const warmth = /Take it: Zinnia, tall double, warmth/
  await page.getByRole('button', { name: warmth }).click()
  await worked(page)
  await expect(page.getByRole('button', { name: warmth })).toHaveCount(0)
  const left = page.getByRole('button', { name: /^Leave the card/ }).first()
  const name = await left.getAttribute('aria-label')
  await left.click()
  await worked(page)
  await expect(page.getByRole('button', { name, exact: true })).toHaveCount(0)
  await page.goto(address + '/crops/zinnia-tall')
  await worked(page)
  await expect(page.locator('main')).toContainText('Own records on warmth, taken in 2026: ')
})

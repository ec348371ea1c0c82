// A farm of one's own, from nothing: the place, a first row of a new variety, a count, a market day.
import { test, expect, accessible, fits } from './farm.mjs'

test.use({ kind: 'serve' })

test('a farm of one\'s own starts from nothing', async ({ page, address }) => {
  await page.goto(address)
  await expect(page).toHaveURL(/\/farm$/)
  await accessible(page)
  for (const [label, value] of [['The farm\'s name', 'Three Beds'], ['Latitude', '51.2'], ['Longitude', '-1.5'], ['Height above the sea', '80'],
    ['Time zone', 'Europe/London'], ['Days on which you cut', 'someday']]) {
    await page.getByLabel(label).fill(value)
  }
  await page.getByRole('button', { name: 'Keep' }).click()
  await expect(page.locator('#pick_days-fault')).toContainText('no weekday')
  await expect(page.getByLabel('Latitude')).toHaveValue('51.2')
  await page.getByLabel('Days on which you cut').fill('tue fri')
  await page.getByRole('button', { name: 'Keep' }).click()
  await expect(page.getByText('Nothing is planted yet')).toBeVisible()
  await accessible(page)

  await page.getByRole('link', { name: 'Add a planting' }).click()
  await page.getByLabel('Variety', { exact: true }).fill('Zinnia coral')
  await page.getByLabel('Crop, for a new variety').selectOption({ label: 'Zinnia, tall double' })
  const started = new Date(Date.now() - 75 * 24 * 3600 * 1000).toISOString().slice(0, 10)
  await page.getByLabel('Started on').fill(started)
  await page.getByLabel('Plants').fill('60')
  await page.getByRole('button', { name: 'Add the planting' }).click()
  await expect(page.getByRole('heading', { level: 1 })).toContainText('ZC1')
  await fits(page)

  await page.goto(address + '/orders/new')
  await page.getByLabel('Name').fill('Saturday market')
  await page.getByLabel('Due on').fill(new Date(Date.now() + 10 * 24 * 3600 * 1000).toISOString().slice(0, 10))
  await page.getByRole('button', { name: 'Add it' }).click()
  await page.getByLabel('Variety, crop, role or colour').fill('Zinnia coral')
  await page.locator('.sheet').getByLabel('Stems').fill('30')
  await page.getByRole('button', { name: 'Add the line' }).click()
  await expect(page.locator('.due').first()).toContainText('30 wanted')
  await page.getByRole('link', { name: 'Correct' }).click()
  await page.getByLabel('For whom').fill('the town')
  await page.getByRole('button', { name: 'Keep the correction' }).click()
  await expect(page.getByText('For the town.')).toBeVisible()
})

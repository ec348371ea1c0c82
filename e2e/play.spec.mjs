// A season to play: its days, its offers, its end; and the way to it from a farm of one's own.
import { test, expect, accessible, fits, worked } from './farm.mjs'

const plant = async (page, address, variety, method, start, plants) => {
  await page.goto(address + '/plantings/new')
  await worked(page)
  await page.getByLabel('Variety', { exact: true }).fill(variety)
  await page.getByLabel('Started', { exact: true }).selectOption(method)
  await page.getByLabel('Started on').fill(start)
  await page.getByLabel('Plants', { exact: true }).fill(String(plants))
  await page.getByRole('button', { name: 'Add the planting' }).click()
  await worked(page)
}

test.describe('a season', () => {
  test.use({ kind: 'play' })

  test('is played from empty beds to the frost, and told what it was lost by', async ({ page, address, isMobile }) => {
    await page.goto(address + '/play')
    await expect(page.getByRole('heading', { level: 1 })).toHaveText('Monday 1 March 2027')
    await expect(page.locator('.answer')).toHaveText('Nothing is sown yet.')
    await accessible(page)
    await fits(page)
    await page.goto(address + '/play/reckoning') // nobody is told before the end
    await expect(page).toHaveURL(/\/play$/)

    await plant(page, address, 'Zinnia rose', 'direct', '2027-05-16', 40)
    await plant(page, address, 'Sunflower amber', 'direct', '2027-05-12', 60)
    await page.goto(address + '/play')
    let yes = 0
    for (let step = 0; step < 80 && (await page.getByRole('button', { name: 'Run to the next decision' }).count()); step += 1) {
      await page.getByRole('button', { name: 'Run to the next decision' }).focus()
      await page.keyboard.press('Enter') // by keys alone
      await page.waitForURL(/why=/)
      await worked(page)
      await expect(page.locator('.game-why')).not.toHaveText('')
      const offer = page.getByRole('button', { name: /^Say yes/ })
      if (yes === 0 && (await offer.count())) {
        await accessible(page)
        await fits(page)
        const name = (await offer.first().getAttribute('aria-label')).replace('Say yes: ', '')
        await offer.first().click()
        await worked(page)
        await expect(page.getByRole('link', { name })).toBeVisible() // promised now
        yes += 1
        if (isMobile) return // the season goes on the same at every width, and takes minutes
      }
      if ((await page.url()).includes('why=')) await page.goto(address + '/play')
    }
    expect(yes).toBe(1)
    await page.getByRole('link', { name: 'What the season came to' }).click()
    await worked(page)
    await accessible(page)
    await fits(page)
    const money = (text) => Number(text.match(/(-?[\d.]+) CHF/)[1])
    const [own, best] = (await page.locator('.answer').textContent()).match(/-?[\d.]+(?= CHF)/g).map(Number)
    const costs = await page.getByRole('region', { name: 'What each thing cost' }).locator('tbody tr td:nth-child(3)').allTextContents()
    expect(costs).toHaveLength(5)
    expect(costs.map(money).reduce((a, b) => a + b, own)).toBeCloseTo(best, 1) // they add up, to the rounding

    await page.goto(address + '/play')
    await page.getByLabel('Begin anew with season').fill('12')
    await page.getByRole('button', { name: 'Begin anew' }).click()
    await worked(page)
    await expect(page.getByRole('heading', { level: 1 })).toHaveText('Monday 1 March 2027')
    await expect(page.locator('.answer')).toHaveText('Nothing is sown yet.')
    await expect(page.getByLabel('Begin anew with season')).toHaveValue('12')
  })
})

test('the school starts a season beside the farm, and the farm stays as it was', async ({ page, address }) => {
  await page.goto(address + '/school')
  await worked(page)
  await page.getByRole('button', { name: 'Play a season' }).click()
  await worked(page)
  const beside = await page.getByRole('link', { name: /Your season is ready/ }).getAttribute('href')
  expect(beside.startsWith(address)).toBe(false)
  const answer = await fetch(beside, { redirect: 'manual' })
  expect([200, 302, 303]).toContain(answer.status) // it signs in whoever comes, as the demo does
  await page.goto(address + '/plantings')
  await expect(page.getByRole('heading', { level: 1 })).toBeVisible()
  await expect(page.locator('.top')).toContainText('Larkenfold Flowers')
})

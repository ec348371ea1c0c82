// What a thumb needs: targets of 44 px, a bar with a door to the rest, long lists that are found in, a season that reads on a phone. And two who
// change the same thing.
import { test, expect, accessible, fits, worked } from './farm.mjs'

test('whatever is tapped is 44 px high', async ({ page, address, isMobile }) => {
  test.skip(!isMobile, 'a mouse hits less')
  for (const at of ['/', '/rounds', '/count?row=ZC1', '/cut', '/store', '/store/places/new', '/plantings', '/plantings/CO1', '/plantings/CO1/cut', '/plantings/CO1/count', '/orders', '/orders/Gate%20stall', '/season', '/beds', '/seeds',
    '/crops', '/crops/dahlia-ball', '/farm', '/people', '/me', '/why/zinnia-tall', '/season/date', '/season/successions', '/box', '/stakes', '/find?q=zinnia', '/notes/write', '/years', '/review', '/school', '/season/carry']) {
    await page.goto(address + at)
    await worked(page)
    const small = await page.evaluate(() => {
      const low = []
      for (const e of document.querySelectorAll('a[href], button, summary, select, input:not([type=hidden])')) {
        const box = (e.matches('[type=radio], [type=checkbox]') ? e.closest('label') ?? e : e).getBoundingClientRect()
        const inText = e.tagName === 'A' && getComputedStyle(e).display === 'inline' && e.closest('p, dd, figcaption, .quiet')
        const wholeRow = getComputedStyle(e, '::after').position === 'absolute'
        if (box.width && box.height < 43.5 && !inText && !wholeRow && !e.closest('svg') && !e.matches('.skip')) low.push(`${e.tagName} ${e.textContent.trim().slice(0, 30)} ${box.height}`)
      }
      return low
    })
    expect(small, at).toEqual([])
  }
})

test('the bar of a phone has the field\'s views and a way to the rest', async ({ page, address, isMobile }) => {
  test.skip(!isMobile, 'a desk has room for all')
  await page.goto(address)
  const bar = page.getByRole('navigation', { name: 'Views' })
  await expect(bar.locator(':scope > .container > :visible')).toHaveText([/Morning/, /Rounds/, /Count/, /Cut/, /More/])
  await fits(page)
  await bar.getByText('More').click()
  await accessible(page)
  await bar.getByRole('link', { name: 'Season' }).click()
  await worked(page)
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('Season 2026')
  const stem = page.locator('.year-list a', { hasText: 'TU1' })
  await expect(stem).toContainText('cut from')
  await fits(page)
  await stem.click()
  await worked(page)
  await expect(page.locator('#move-heading')).toContainText('TU1')
})

test('a long list is found in', async ({ page, address }) => {
  await page.goto(address + '/plantings')
  const rows = page.locator('.rows-table tbody tr')
  const all = await rows.count()
  await page.getByRole('textbox', { name: 'Find' }).fill('KONIG buds')
  await page.getByRole('textbox', { name: 'Find' }).press('Enter')
  await expect(page.locator('.empty')).toContainText('No row that grows is like that')
  await page.getByRole('textbox', { name: 'Find' }).fill('fohnblau')
  await page.getByRole('textbox', { name: 'Find' }).press('Enter')
  await expect(rows).toHaveCount(1)
  await expect(page.locator('.find')).toContainText(/1 of \d\d/)
  await page.locator('.find').getByRole('link', { name: 'Show all' }).click()
  await expect(rows).toHaveCount(all)
  await page.getByLabel('Bed').selectOption('Brook 1')
  await page.getByRole('button', { name: 'Show' }).click()
  await expect(rows.filter({ hasText: 'ZC1' })).toHaveCount(1)
  expect(await rows.count()).toBeLessThan(8)
  await page.goto(address + '/orders?find=sweet+pea')
  await expect(page.locator('.links li')).toHaveText([/Gate stall/])
  await page.goto(address + '/rounds?bed=Tunnel')
  await worked(page)
  await expect(page.locator('.find')).toContainText(' of ')
})

test('the second of two editors sees both versions, and nothing typed is lost', async ({ page, context, address }) => {
  const other = await context.newPage()
  for (const p of [page, other]) await p.goto(address + '/orders/Gate%20stall/edit')
  await page.getByLabel('For whom').fill('the passers-by')
  await page.getByRole('button', { name: 'Keep the correction' }).click()
  await expect(page.locator('.done')).toContainText('Order corrected')
  await other.getByLabel('For whom').fill('the neighbours')
  await other.getByLabel('Note').fill('bring change')
  await other.getByRole('button', { name: 'Keep the correction' }).click()
  await expect(other.getByRole('alert')).toContainText('Wren has changed this since you opened it')
  await expect(other.locator('#customer-fault')).toHaveText('On record now: the passers-by.')
  await expect(other.getByLabel('For whom')).toHaveValue('the neighbours')
  await accessible(other)
  await other.getByRole('button', { name: 'Keep the correction' }).click()
  await expect(other.locator('.done')).toContainText('Order corrected')
  await expect(other.getByText('For the neighbours.')).toBeVisible()
})

test('open links are listed, say who made them, and can be ended', async ({ page, address }) => {
  await page.goto(address + '/people')
  await page.locator('#role').selectOption('crew')
  await page.getByRole('button', { name: 'Make a link' }).click()
  const link = await page.locator('.link-address a').getAttribute('href')
  await page.goto(address + '/people')
  await expect(page.getByText('For somebody new, as crew')).toBeVisible()
  await expect(page.getByText('made by Wren')).toBeVisible()
  await accessible(page)
  await page.getByRole('button', { name: /End the link/ }).click()
  await expect(page.getByText('For somebody new, as crew')).toHaveCount(0)
  await page.goto(address + new URL(link).pathname)
  await expect(page.getByText('This link has been used or has ended')).toBeVisible()
})

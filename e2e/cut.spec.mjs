// The cutting sheet: a pick morning's cuts recorded from the row, by thumb and by keys, asked after where they fall short, and without signal.
import { test, expect, accessible, fits, worked } from './farm.mjs'

// friday lets the demo's Thursday pass, so that it is a pick day.
async function friday(page, address) {
  await page.goto(address)
  await worked(page)
  await page.getByRole('button', { name: 'Let the day pass' }).click()
  await worked(page)
  await page.goto(address + '/cut')
  await worked(page)
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('Cut of Fri 10 July')
}

// onRecord waits until a row's page tells a cut so, which is worked out a moment after it is kept.
async function onRecord(page, address, id, words) {
  const cut = page.getByRole('link', { name: `Correct: cut ${words}, Fri 10 July` })
  await expect(async () => {
    await page.goto(`${address}/plantings/${id}`)
    await worked(page)
    await expect(cut).toBeVisible({ timeout: 1000 })
  }).toPass({ timeout: 60_000 })
}

const open = (page) => page.locator('.cut-row[open]')
const recorded = (page) => page.locator('#cut-progress')

test('the sheet says what to cut, for whom and where, and takes a row in three touches', async ({ page, address }) => {
  await page.goto(address + '/?pick=2026-07-10')
  await page.getByRole('link', { name: 'The cutting sheet' }).click()
  await worked(page)
  await expect(page.locator('.answer')).toContainText(/^Cut from about \d+:\d\d to \d+:\d\d/)
  await expect(page.locator('.head')).toContainText(/pairs? of hands/)
  const dahlia = page.locator('.cut-row[data-row=DW1]')
  await dahlia.locator('summary').click()
  await expect(dahlia).toContainText('half to open: half the rows out, centre tight')
  await expect(dahlia).toContainText('The backs are firm, no petal drops when it is shaken and the centre is tight.')
  await expect(dahlia).toContainText(/\d+ for Fallow Steps market on Sat 11 July/)
  await expect(dahlia).toContainText(/Low, just above a joint: 35 cm now, the next stems from here about \w+ \d+ \w+, 50 cm long\./)
  await expect(dahlia).toContainText('Leaves and sap can irritate the skin')
  await expect(page.locator('.cut-waters')).toContainText(/\d buckets? of warm water, 38 to 43 °C, 20 cm deep, 8 litres in each/)
  await expect(page.locator('.cut-waters')).toContainText(/fouls its water, alone, not below 7 °C/)
  await expect(page.locator('.rests').last()).toContainText('an hour and a half after sunrise')
  await accessible(page)
  await fits(page)
})

test('cuts are recorded row by row with the keys alone, and the forecast has them', async ({ page, address }) => {
  await friday(page, address)
  const done = async () => Number((await recorded(page).textContent()).match(/^\d+/)[0])
  const before = await done()
  const row = open(page)
  const id = await row.getAttribute('data-row')
  const likely = Number(await row.locator('form').getAttribute('data-likely'))
  await row.getByLabel('Sound stems').fill(String(likely))
  await page.keyboard.press('Enter')
  await expect(recorded(page)).toContainText(`${before + 1} of`)
  await expect(page.locator('#cut-waiting')).toHaveText('All is sent')
  await expect(page.locator(`.cut-row[data-row="${id}"]`)).toHaveClass(/is-done/)
  await expect(open(page).getByLabel('Sound stems')).toBeFocused()
  await page.reload()
  await worked(page)
  await expect(page.locator(`.cut-row[data-row="${id}"]`)).toHaveClass(/is-done/)
  await onRecord(page, address, id, likely === 1 ? '1 stem' : `${likely} stems`)
})

test('where far less was cut than stood ready the page asks after the rest', async ({ page, address }) => {
  await friday(page, address)
  const row = page.locator('.cut-row:has(form[data-sure])').filter({ has: page.locator('form') })
  const rich = await row.evaluateAll((rows) => rows.find((r) => Number(r.querySelector('form').dataset.sure) >= 15).dataset.row)
  const one = page.locator(`.cut-row[data-row="${rich}"]`)
  if (!(await one.getAttribute('open').then((o) => o !== null))) await one.locator('summary').click()
  const likely = Number(await one.locator('form').getAttribute('data-likely'))
  await one.getByLabel('Sound stems').fill('3')
  await one.getByRole('button', { name: 'Record, next row' }).click()
  await expect(one.locator('.cut-ask')).toContainText(`About ${likely} stood ready. What of the other ${likely - 3}?`)
  await one.getByRole('button', { name: 'They were left' }).click()
  await expect(page.locator('#cut-waiting')).toHaveText('All is sent')
  await onRecord(page, address, rich, `3 stems, ${likely - 3} left standing`)
})

test('what the farm would refuse is refused on the phone, and such a row is not ticked', async ({ page, address }) => {
  await friday(page, address)
  const row = open(page)
  const id = await row.getAttribute('data-row')
  await row.getByLabel('Sound stems').fill('99999')
  await row.getByRole('button', { name: 'Record, next row' }).click()
  await expect(row.locator('.cut-fault')).toContainText('That is more than the row can have')
  await row.getByLabel('Sound stems').fill('3')
  await row.getByLabel('Seconds').fill('5')
  await row.getByRole('button', { name: 'Record, next row' }).click()
  await expect(row.locator('.cut-fault')).toHaveText('5 seconds of 3 sound stems cannot be.')
  await expect(page.locator(`.cut-row[data-row="${id}"]`)).not.toHaveClass(/is-done/)
  // What only the farm can know is told in the bar, and the row is open again.
  await page.route('**/field', (route) => route.fulfill({ status: 422, contentType: 'application/json', body: '{"advice":"This row was ended yesterday."}' }))
  await row.getByLabel('Seconds').fill('')
  await row.getByLabel('Left standing').fill('1')
  await row.getByRole('button', { name: 'Record, next row' }).click()
  await expect(page.locator('#cut-refused')).toContainText('This row was ended yesterday.')
  await expect(page.locator(`.cut-row[data-row="${id}"]`)).not.toHaveClass(/is-done/)
  await page.unroute('**/field')
  await page.getByRole('button', { name: 'Send it again' }).click()
  await expect(page.locator('#cut-refused')).toBeEmpty()
  await expect(page.locator(`.cut-row[data-row="${id}"]`)).toHaveClass(/is-done/)
})

test('a morning of thirty rows without signal is sent when it comes back, each once', async ({ page, address, context, isMobile }) => {
  test.skip(!isMobile, 'a desk has signal')
  await friday(page, address)
  const rows = await page.locator('.cut-row').count()
  await context.setOffline(true)
  const started = Date.now()
  for (let n = 0; n < Math.min(30, rows); n++) {
    const row = open(page)
    await row.getByLabel('Sound stems').fill(await row.locator('form').getAttribute('data-likely'))
    await row.getByRole('button', { name: 'Record, next row' }).tap()
    await expect(recorded(page)).toContainText(`${n + 1} of`)
  }
  expect(Date.now() - started, 'five minutes of taps').toBeLessThan(300_000)
  await expect(page.locator('#cut-waiting')).toHaveText(/^30 waiting for signal$/)
  await context.setOffline(false)
  await page.evaluate(() => dispatchEvent(new Event('online')))
  await expect(page.locator('#cut-waiting')).toHaveText('All is sent', { timeout: 60_000 })
  await page.reload()
  await worked(page)
  await expect(page.locator('.cut-row.is-done')).toHaveCount(30)
})

test('a pick day before an event is added from the sheet', async ({ page, address }) => {
  await page.goto(address + '/cut')
  await worked(page)
  await page.getByText('Another pick day').click()
  await page.getByLabel('A day beside the weekly ones').fill('2026-07-14')
  await page.getByRole('button', { name: 'Add the day' }).click()
  await worked(page)
  await expect(page.getByRole('alert').first()).toHaveText('Tue 14 July is a pick day already.')
  await page.getByLabel('A day beside the weekly ones').fill('2026-07-12')
  await page.getByRole('button', { name: 'Add the day' }).click()
  await expect(async () => {
    await page.goto(address + '/cut?pick=2026-07-12')
    await worked(page)
    await expect(page.getByRole('heading', { level: 1 })).toHaveText('Cut of Sun 12 July', { timeout: 1000 })
  }).toPass({ timeout: 60_000 })
})

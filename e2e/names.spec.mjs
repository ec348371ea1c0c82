// Names as people write them: umlauts, slashes, signs that addresses use, emoji, eighty letters. Every page that any link leads to is there.
import { test, expect, fits, worked } from './farm.mjs'

const long = 'Langstielige Gartenzinnie aus eigener Auslese vom oberen Feld, dunkelrot mit Rand'.slice(0, 80)
const names = ['Löwenmaul 1', 'Rosé/weiß', '50 % Rest?', 'Nr. #7 & 8', '🌻 früh', "Oma's <beste>", 'a+b=c', '%2F', long]

const quoted = (...fields) => fields.map((f) => `"${String(f).replaceAll('"', '""')}"`).join(',')
const table = (header, rows) => [header, ...rows].join('\n') + '\n'

test.use({
  kind: 'serve',
  notebook: {
    'farm.csv': table('key,value', [quoted('name', 'Hof Süd/Ost 🌷'), 'latitude,46.9', 'longitude,7.2', 'elevation_m,520', 'timezone,Europe/Zurich', 'pick_days,tue fri', 'demo_day,2026-07-09']),
    'beds.csv': table('bed,length_m,width_m', names.map((n) => quoted(n, 12, 1.2))),
    'varieties.csv': table('variety,crop,colour,role', names.map((n, i) => quoted(n, ['snapdragon', 'zinnia-tall', 'cosmos-single'][i % 3], i % 2 ? 'weiß' : 'rosé:0.6;rot:0.4', 'filler'))),
    'plantings.csv': table('planting,variety,bed,method,started_on,planted_out_on,plants', names.map((n, i) =>
      i % 3 ? quoted(n, n, n, 'direct', '2026-04-28', '', 40) : quoted(n, n, n, 'tray', '2026-03-10', '2026-04-25', 40))),
    'counts.csv': table('counted_at,planting,plants_counted,rung,stems', names.map((n) => quoted('2026-07-08T06:10', n, 10, 'half', 6))),
    'orders.csv': table('order,kind,due_on,repeats,customer', names.map((n, i) => quoted(n, 'market', `2026-07-${11 + i}`, 'weekly', n))),
    'order_lines.csv': table('order,line,variety,stems,use', names.map((n) => quoted(n, 1, n, 20, 'market'))),
  },
})

test('every link of a farm full of names leads somewhere', async ({ page, address, isMobile }) => {
  test.skip(isMobile, 'links are the same on a phone')
  const seen = new Set()
  const waiting = ['/', '/plantings', '/orders', '/season', '/beds', '/seeds', '/crops', '/rounds', '/count', '/stakes', '/labels', '/farm', '/people', '/box', '/season/date', '/season/successions']
  let pages = 0
  while (waiting.length > 0 && pages < 500) {
    const at = waiting.shift()
    if (seen.has(at)) continue
    seen.add(at)
    let answer
    for (let tries = 0; tries < 100; tries++) {
      answer = await page.request.get(address + at)
      if (!answer.headers().refresh) break
      await page.waitForTimeout(300)
    }
    expect(answer.status(), `${at} is not there`).toBeLessThan(400)
    pages++
    if (!(answer.headers()['content-type'] ?? '').startsWith('text/html')) continue
    const text = await answer.text()
    expect(text, at).not.toContain('ZgotmplZ')
    for (const [, href] of text.matchAll(/\shref="(\/[^"]*)/g)) {
      const to = href.replaceAll('&amp;', '&').replace(/&#(\d+);/g, (_, code) => String.fromCharCode(code)).split('#')[0]
      // Of crops that are not grown here one is as good as another, and so is one year as another.
      if (/^\/(assets|crops\/(?!snapdragon|zinnia-tall|cosmos-single)|vendor)|\/edit\?|year=202[57]|weeks=frost|on=2026-0[1-6]/.test(to)) continue
      if (!seen.has(to)) waiting.push(to)
    }
  }
  const rows = [...seen].filter((at) => /^\/plantings\/[^/]*$/.test(at)).map((at) => decodeURIComponent(at.slice('/plantings/'.length)))
  for (const n of names) expect(rows, `nothing leads to ${n}`).toContain(n)
  expect(pages).toBeGreaterThan(100)
})

test('pages hold long names, and a row of any name is counted, corrected and taken back', async ({ page, address }) => {
  for (const at of ['/', '/plantings', '/orders', '/season', '/beds', '/seeds', '/rounds', '/count', `/plantings/${encodeURIComponent(long)}`, `/orders/${encodeURIComponent(long)}`, '/crops/zinnia-tall']) {
    await page.goto(address + at)
    await fits(page)
  }
  for (const n of ['Rosé/weiß', '%2F', '🌻 früh']) {
    await page.goto(address + '/go?to=' + encodeURIComponent(n))
    await expect(page.getByRole('heading', { level: 1 })).toContainText(n)
    await page.getByRole('link', { name: 'Count', exact: true }).last().click()
    await worked(page)
    await page.getByLabel('Stems on open').fill('3')
    await page.getByRole('button', { name: 'Record the count' }).click()
    await expect(page.locator('.done')).toContainText('Count recorded')
    await expect(page.getByRole('heading', { level: 1 })).toContainText(n)
    await page.getByRole('button', { name: 'Undo' }).click()
    await expect(page.locator('.done')).toContainText('put back')
    await page.getByRole('link', { name: 'Correct', exact: true }).first().click()
    await page.getByLabel('Plants').fill('44')
    await page.getByRole('button', { name: 'Keep the correction' }).click()
    await expect(page.locator('.done')).toContainText('Planting corrected')
  }
})

test('a name that no address can hold is refused beside its field', async ({ page, address }) => {
  await page.goto(address + '/plantings/new')
  await page.getByLabel('Variety', { exact: true }).fill('Löwenmaul 1')
  await page.getByLabel('Started on').fill('2026-05-01')
  await page.getByLabel('Plants', { exact: true }).fill('10')
  for (const [name, words] of [['..', 'could not be found'], ['New', 'could not be found'], ['a|b', 'upright bar']]) {
    await page.getByLabel('Short name').fill(name)
    await page.getByRole('button', { name: 'Add the planting' }).click()
    await expect(page.locator('#planting-fault')).toContainText(words)
    await expect(page.getByLabel('Short name')).toHaveValue(name)
  }
})

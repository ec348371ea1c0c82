// What the walk computes, without a page: the count of a row, the way along the rows, and what waits to be sent.
import { expect, test } from '@playwright/test'
import { expectedInAll, expectedOn, fieldsOf, morePlants, newCount, spoiledOf, stepped, tapped, totalOf, wrongWith } from '../web/assets/count.js'
import { beside, localMinute, nextToCount, placeOf } from '../web/assets/route.js'
import { flush, postField } from '../web/assets/send.js'
import { recordsOf, wrongWith as moveWrong } from '../web/assets/nosignal.js'
import { refusalWords, waitingWords } from '../web/assets/waiting.js'

test.skip(({ isMobile }) => isMobile, 'nothing here depends on a page')

const rungs = ['tight', 'colour', 'half']
const row = { id: 'Löwenmaul 1/2', name: 'Löwenmaul', plants: 60, sample: 12, expected: [1, 0.5, 0.25], window: ['colour', 'half'], wag: true, due: true, done: '' }
const unseen = { spoiled: '', cause: '', note: '' }

test('taps add up and are taken back one by one, to nothing and not below', () => {
  let count = newCount(row, rungs)
  for (const [rung, by] of [['tight', 1], ['tight', 5], ['half', 1]]) count = tapped(count, rung, by)
  expect(count.stems).toEqual({ tight: '6', colour: '', half: '1' })
  expect(totalOf(count)).toBe(7)
  count = stepped(count)
  expect(count.stems.half).toBe('0')
  count = stepped({ ...count, stems: { ...count.stems, tight: '2' } }) // it was typed over meanwhile
  expect(count.stems.tight).toBe('0')
  expect(stepped(stepped(stepped(count))).taps).toEqual([])
  expect(newCount(row, rungs).stems.tight).toBe('') // no count knows of another
})

test('a draft is gone on with, under the id that it had', () => {
  const draft = tapped(newCount(row, rungs), 'half', 5)
  const again = newCount(row, rungs, JSON.parse(JSON.stringify(draft)))
  expect(again).toEqual(draft)
  expect(newCount(row, rungs).id).not.toBe(draft.id)
})

test('plants stay within those of the row, and what is expected goes by them', () => {
  const count = newCount(row, rungs)
  expect(morePlants({ ...count, plants: '60' }, row, 1).plants).toBe('60')
  expect(morePlants({ ...count, plants: '1' }, row, -1).plants).toBe('1')
  expect(morePlants({ ...count, plants: 'many' }, row, 1).plants).toBe('1')
  expect(expectedOn(count, row, 1)).toBe(6) // 12 plants with half a stem each
  expect(expectedInAll(count, row)).toBe(21)
})

test('what is wrong is said, at its field', () => {
  const count = tapped(newCount(row, rungs), 'half', 5)
  expect(wrongWith(count, row, unseen)).toBe(null)
  for (const [change, seen, at, advice] of [
    [{ plants: '61' }, unseen, 'walk-plants', 'Write how many plants were counted: 1 to 60.'], [{ plants: '0' }, unseen, 'walk-plants', '1 to 60'],
    [{ plants: '1.5' }, unseen, 'walk-plants', '1 to 60'], [{ stems: { ...count.stems, tight: '-3' } }, unseen, 'walk-tight', 'tight: “-3” is no whole number.'],
    [{ firm: { ...count.firm, half: 'all' } }, unseen, 'firm-half', '“all” is no whole number'], [{}, { ...unseen, spoiled: '6', cause: 'hail' }, 'spoiled', '6 spoiled of 5 counted'],
    [{}, { ...unseen, spoiled: '2' }, 'spoiled', 'by what'], [{}, { ...unseen, spoiled: 'two', cause: 'hail' }, 'spoiled', 'by what'],
  ]) {
    const wrong = wrongWith({ ...count, ...change }, row, seen)
    expect(wrong?.at, advice).toBe(at)
    expect(wrong.advice).toContain(advice)
  }
})

test('a record holds what was counted and nothing else', () => {
  const count = { ...tapped(newCount(row, rungs), 'half', 5), id: 'a', plants: ' 12', firm: { tight: '1', colour: '', half: '4' } }
  expect(fieldsOf(count, row, { now: '2026-07-09T06:20', counter: 'Ada' })).toEqual(
    { id: 'a', planting: 'Löwenmaul 1/2', counted_at: '2026-07-09T06:20', plants_counted: '12', counter: 'Ada', stems_half: '5', firm_half: '4' })
  expect(fieldsOf(count, { ...row, wag: false }, { now: '', counter: '' })).not.toHaveProperty('firm_half')
  expect(spoiledOf(count, row, unseen, '2026-07-09')).toBe(null)
  expect(spoiledOf(count, row, { spoiled: ' 2 ', cause: ' hail ', note: '' }, '2026-07-09')).toEqual(
    { id: 'a-s', planting: 'Löwenmaul 1/2', on: '2026-07-09', cause: 'hail', stems: '5', spoiled: '2' })
})

test('the walk leads to what is worth a count, round the corner too, and says what is left', () => {
  const rows = [{ id: 1, due: true, done: '' }, { id: 2, due: false, done: '' }, { id: 3, due: true, done: '' }]
  expect(nextToCount(rows, rows[0]).id).toBe(3)
  expect(nextToCount(rows, rows[2]).id).toBe(1)
  expect(placeOf(rows, rows[0])).toBe('2 rows to count. ')
  rows[0].done = rows[2].done = '2026-07-09T06:20'
  expect(nextToCount(rows, rows[2]).id).toBe(1) // nothing is left: on with the next
  expect(placeOf(rows, rows[2])).toBe('Counted today at 06:20. ')
  expect(placeOf(rows, rows[1])).toBe('All is counted that is worth it. ')
  expect([beside(rows, rows[0], -1).id, beside(rows, rows[2], 1).id]).toEqual([3, 1])
  expect(localMinute(new Date('2026-07-09T04:05:00Z'), 'Europe/Zurich')).toBe('2026-07-09T06:05')
  expect(localMinute(new Date('2026-12-31T23:30:00Z'), 'Europe/Zurich')).toBe('2027-01-01T00:30')
})

test('what waits is sent in order, and stays where the farm cannot be reached', async () => {
  const records = [{ number: 1 }, { number: 2, refused: 'no' }, { number: 3 }, { number: 4 }]
  const sent = []
  const queue = {
    all: async () => [...records],
    remove: async (number) => { records.splice(records.findIndex((r) => r.number === number), 1) },
    refuse: async (record, advice) => { records.find((r) => r.number === record.number).refused = advice },
  }
  const post = async (record) => {
    sent.push(record.number)
    return record.number === 4 ? { state: 'later' } : record.number === 3 ? { state: 'refused', advice: 'too many' } : { state: 'kept' }
  }
  expect(await flush(queue, post)).toBe('later')
  expect(sent).toEqual([1, 3, 4])
  expect(records).toEqual([{ number: 2, refused: 'no' }, { number: 3, refused: 'too many' }, { number: 4 }])
  expect(waitingWords('later', records)).toBe('1 waiting for signal')
  expect(waitingWords('signin', records)).toBe('1 waiting: sign in to send')
  expect(waitingWords('sent', [])).toBe('All is sent')
  expect(refusalWords({ kind: 'counts', fields: { planting: 'ZC1', counted_at: '2026-07-09T06:20' }, refused: 'Too many.' })).toBe(
    'Not taken, kept on this phone: counts of ZC1, 2026-07-09 at 06:20. Too many.')
  for (const [status, state] of [[200, 'kept'], [401, 'signin'], [422, 'refused'], [429, 'later'], [503, 'later']]) {
    const answers = [new Response('{"token":"t"}'), new Response('{"advice":"Why not."}', { status })]
    expect((await postField({ kind: 'counts', fields: {} }, async () => answers.shift())).state, `${status}`).toBe(state)
  }
  expect(await postField({}, async () => { throw new TypeError('no signal') })).toEqual({ state: 'later' })
})

test('a form of the field is read as its records: a job pressed twice is one', () => {
  const fields = [['csrf', 'x'], ['back', '/rounds'], ['do', 'done'], ['job', 'ZC1|feed|m1|ZC1 feed 2026-07-01'], ['job', 'DW1|feed||DW1 feed'], ['on', '2026-07-12'], ['person', 'Linnet']]
  const now = '2026-07-09T06:20'
  const done = recordsOf('jobs', fields, { pressed: '', now })
  expect(done.map((r) => r.fields)).toEqual([
    { id: 'ZC1 feed 2026-07-01 done 2026-07-09', job: 'ZC1 feed 2026-07-01', planting: 'ZC1', task: 'feed', shown: 'm1', state: 'done', on: '2026-07-09', person: '' },
    { id: 'DW1 feed done 2026-07-09', job: 'DW1 feed', planting: 'DW1', task: 'feed', shown: '', state: 'done', on: '2026-07-09', person: '' },
  ])
  expect(recordsOf('jobs', fields, { pressed: 'moved', now })[0].fields).toMatchObject({ state: 'moved', on: '2026-07-12', person: '' })
  expect(recordsOf('jobs', fields, { pressed: 'given', now })[0].fields.person).toBe('Linnet')
  const [move] = recordsOf('moves', [['csrf', 'x'], ['lot', 'a'], ['stems', ' 4 '], ['what', 'to'], ['place', '']], { now, by: () => 'n' })
  expect(move).toEqual({ kind: 'moves', fields: { lot: 'a', stems: '4', what: 'to', place: '', id: 'n', at: now } })
  expect(moveWrong(move, 10)).toBe('Choose the place to which they were brought.')
  expect(moveWrong({ ...move, fields: { ...move.fields, place: 'Loft' } }, 10)).toBe(null)
  expect(moveWrong({ ...move, fields: { ...move.fields, place: 'Loft', stems: '11' } }, 10)).toBe('10 stand there, and not 11.')
  expect(moveWrong({ kind: 'temperatures', fields: { place: 'Loft', celsius: '4,5' } }, 0)).toBe(null)
})

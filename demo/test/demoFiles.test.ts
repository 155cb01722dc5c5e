import { describe, expect, it } from '@jest/globals'
import { readPhoneCell } from '@upper-field/core/phone'
import { openText } from '@upper-field/core/table'
import { openFile, readFileRows, sourceOfBytes } from '@upper-field/files'
import { createWorld, DEMO_WORLD } from '@upper-field/standins/world'
import { FAULTS, fairBadges, scenarioFiles } from '../src'

const world = createWorld(DEMO_WORLD.seed, DEMO_WORLD)
const badges = fairBadges(world, { rows: 800 })

describe('the demo world', () => {
  it('is the same for the same seed, and another for another', () => {
    expect(createWorld('a', { people: 40 }).people).toEqual(createWorld('a', { people: 40 }).people)
    expect(createWorld('b', { people: 40 }).people).not.toEqual(createWorld('a', { people: 40 }).people)
  })

  it('gives nobody’s number to two people, and only numbers the plan calls valid', () => {
    const numbers = world.people.flatMap(({ mobile, desk }) => [mobile.e164, desk.e164])
    expect(new Set(numbers).size).toBe(numbers.length)
    expect(numbers.filter((e164) => readPhoneCell(e164).verdict !== 'clean')).toEqual([])
  })

  it('spans nine countries', () => expect(new Set(world.companies.map(({ place }) => place.country)).size).toBe(9))
})

describe('the fair’s badges', () => {
  const cells = badges.truth.flatMap(({ person, phones }) =>
    phones.map((phone) => ({ phone, country: world.people[person]?.company.place.country ?? '' })),
  )

  it('hold every fault of the phone table', () => {
    expect(new Set(cells.map(({ phone }) => phone.fault))).toEqual(new Set(FAULTS.map(({ name }) => name)))
  })

  it('are read as they truly are, every cell', () => {
    const wrong = cells.filter(({ phone, country }) => {
      const reading = readPhoneCell(phone.cell, { country })
      const e164s = reading.numbers.filter(({ valid }) => valid).map(({ e164 }) => e164)
      return reading.verdict !== phone.verdict || e164s.join() !== phone.e164s.join()
    })
    expect(wrong).toEqual([])
    expect(cells).toHaveLength(1600)
  })

  it('hold people twice, and the truth says who', () => {
    const again = badges.truth.filter(({ duplicateOf }) => duplicateOf !== null)
    expect(again.length).toBeGreaterThan(60)
    for (const { duplicateOf, row } of again) expect(duplicateOf).toBeLessThan(row)
  })

  it('are mapped without a hand', () => {
    const opened = openText(badges.bytes, { isWhole: true })
    expect(opened.status === 'opened' && opened.suggestions.map(({ field }) => field)).toEqual([
      'full-name',
      'company',
      'title',
      'number',
      'number',
      'email',
      'city',
      'postal-code',
      'country',
      'profile',
      null,
    ]) // prettier-ignore
  })
})

describe('the seven files', () => {
  const files = scenarioFiles(world)
  const found = async (name: string) => {
    const file = files.find((one) => one.name === name)
    const opened = await openFile(sourceOfBytes(file?.bytes ?? new Uint8Array()), name)
    if (opened.status === 'refused') throw new Error(opened.problem)
    return { opened, fields: opened.table.suggestions.map(({ field }) => field) }
  }

  it('are seven, with about 6,000 rows', () => {
    expect(files).toHaveLength(7)
    const rows = files.reduce((sum, { truth }) => sum + truth.length, 0)
    expect(rows).toBeGreaterThan(5700)
    expect(rows).toBeLessThan(6100)
  })

  it.each([
    [
      'fair-badges.xlsx',
      'xlsx',
      4,
      ['full-name', 'company', 'title', 'number', 'number', 'email', 'city', 'postal-code', 'country', 'profile', null],
    ],
    [
      'hospitality-directory.csv',
      'csv',
      1,
      [
        'company',
        null,
        'full-name',
        'number',
        'number',
        'email',
        'street',
        'postal-code',
        'city',
        'country',
        'web',
        null,
      ],
    ],
    [
      'quotation-requests.csv',
      'csv',
      1,
      [null, 'given-name', 'family-name', 'email', 'number', 'postal-code', 'city', 'country', null, null],
    ],
    ['campsite-pages.txt', 'csv', null, ['web']],
    [
      'profile-export.csv',
      'csv',
      1,
      ['given-name', 'family-name', 'title', 'company', 'profile', 'city', 'country', null],
    ],
    [
      'customers.txt',
      'tsv',
      1,
      [null, 'full-name', 'company', 'street', 'postal-code', 'city', 'country', 'number', 'email', null],
    ],
    ['opt-outs.json', 'json', null, ['full-name', 'number', 'email', null, null]],
  ])('%s comes in without a hand', async (name, format, headingsRow, fields) => {
    const { opened, fields: suggested } = await found(name)
    expect(opened.format).toBe(format)
    expect(opened.table.shape.headings?.last ?? null).toBe(headingsRow)
    expect(suggested).toEqual(fields)
  })

  it('every row of every file is read as it truly is; sums and hidden sheets are no contacts', async () => {
    for (const { name, bytes, truth } of files.filter((file) => file.truth.length > 0)) {
      const { opened, fields } = await found(name)
      const numbers = fields.flatMap((field, i) => (field === 'number' ? [i] : []))
      const rows = new Map<number, readonly string[]>()
      for await (const { row, judged } of readFileRows(sourceOfBytes(bytes), opened))
        if (judged.status === 'read') rows.set(row, judged.cells)
      expect([name, rows.size]).toEqual([name, truth.length])
      const lost = truth.filter(({ row, phones }) =>
        phones.some(({ cell }, i) => cell.trim() !== '' && digits(rows.get(row)?.[numbers[i] ?? -1]) !== digits(cell)),
      )
      expect([name, lost]).toEqual([name, []])
    }
  })
})

const digits = (cell: string | undefined): string => (cell ?? '').replace(/\D/g, '')

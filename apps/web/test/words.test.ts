import { describe, expect, it } from '@jest/globals'
import type { PairItem, PairSide } from '@upper-field/contract'
import { PAIR_KEYS, PAIR_LEVELS } from '@upper-field/core/pair'
import { PROBLEMS, REPAIRS } from '@upper-field/core/phone'
import { CHANGE_CODES, CODES_OF, STEP_KINDS } from '@upper-field/core/tidy'
import fc from 'fast-check'
import { createElement } from 'react'
import { renderToStaticMarkup } from 'react-dom/server'
import { Sides } from '../src/pair/Sides'
import { shortened } from '../src/words/format'
import { bitsText, evidenceSentence, PAIR_REASON, SILENT } from '../src/words/pairing'
import { PROBLEM, REPAIR } from '../src/words/sentences'
import { tell } from '../src/words/story'
import { REPAIR_NAME, STEP } from '../src/words/tidying'
import { side } from './pairSide'

describe('words for what the core tells', () => {
  it.each([
    ['repair', REPAIRS.map((code) => REPAIR[code])],
    ['problem', PROBLEMS.map((code) => PROBLEM[code])],
  ])('every %s has a sentence of its own', (_, sentences) => {
    for (const sentence of sentences) expect(sentence).toMatch(/^[A-Z].*\.$/)
    expect(new Set(sentences).size).toBe(sentences.length)
  })

  it('every repair is counted under one step at most, and every step has a name', () => {
    const counted = STEP_KINDS.flatMap((kind) => CODES_OF[kind])
    expect(new Set(counted).size).toBe(counted.length)
    expect(CHANGE_CODES.filter((code) => !counted.includes(code))).toEqual(['edited'])
    expect(STEP_KINDS.map((kind) => STEP[kind].title)).not.toContain('')
    expect(CHANGE_CODES.filter((code) => !/\.$/.test(REPAIR_NAME[code].says))).toEqual([])
  })

  it('every reason to compare two contacts is told', () => {
    expect(PAIR_KEYS.map((key) => PAIR_REASON[key])).not.toContain(undefined)
  })
})

describe('the story of a contact that is made of very many rows', () => {
  it.each([
    [1, 'Joined with 1 more row'],
    [39_900, 'Joined with 39,900 more rows'],
  ])('tells how many of them it does not tell one by one: %d', (rows, title) => {
    expect(tell({ kind: 'joined-more', rows }, () => '').title).toBe(title)
  })
})

describe('the story of a phone cell', () => {
  it('tells what was read, what was mended, and the words beside it', () => {
    const { title, more } = tell(
      {
        kind: 'read',
        column: 'Phone',
        raw: ' 07911 204481 (call after 5) ',
        reading: {
          verdict: 'repaired',
          numbers: [
            {
              e164: '+447911204481',
              country: 'GB',
              lineType: 'mobile',
              extension: '12',
              label: null,
              valid: true,
              possible: true,
            },
          ],
          repairs: ['label-taken-off'],
          problem: null,
          remark: 'call after 5',
        },
      },
      (id) => id,
    )
    expect(title).toMatch(/^Phone: /)
    expect(more).toEqual([
      '“07911 204481 (call after 5)”',
      REPAIR['label-taken-off'],
      'Beside it stood “call after 5”.',
      '+44 7911 204481, extension 12: mobile by the numbering plan',
    ])
  })
})

const pair = (a: Partial<PairSide>, b: Partial<PairSide>, evidence: PairItem['evidence']): PairItem => ({
  id: 1,
  score: evidence.reduce((sum, { bits }) => sum + bits, -9),
  key: 'name',
  evidence,
  against: 9,
  sides: [side(a), side({ contactId: 2, row: 7, ...b })],
  others: [],
  alike: 0,
})

const shown = (item: PairItem): string =>
  renderToStaticMarkup(
    createElement(Sides, {
      pair: item,
      values: { chosen: {}, sourceOf: () => 1, choose: () => {}, flip: () => {} },
      also: new Set<number>(),
      onAlso: () => {},
      onOpen: () => {},
    }),
  )

describe('two contacts side by side', () => {
  const item = pair(
    { street: '4 Lantern Street', birthDate: '1951-01-02', numbers: [{ e164: '+33612551797', lineType: 'mobile' }] },
    { street: 'Lantern St 4', birthDate: '1979' },
    [
      { field: 'street', level: 'same', bits: 11.3 },
      { field: 'birth', level: 'other', bits: -7.2 },
    ],
  )

  it('show street and birth date with what they weigh, and numbers as their country groups them', () => {
    const html = shown(item)
    for (const text of ['Street', '4 Lantern Street', 'Birth date', '1951-01-02', '+11.3', '−7.2', '+33 6 12 55 17 97'])
      expect(html).toContain(text)
    expect(html).toContain('one street and house; but two birth dates'.replace(/^o/, 'O'))
  })

  it('leave out what neither tells', () => {
    const html = shown(pair({}, {}, []))
    expect(html).not.toContain('Birth date')
    expect(html).not.toContain('Street')
  })
})

describe('evidence in words', () => {
  const fields = Object.keys(PAIR_LEVELS) as (keyof typeof PAIR_LEVELS)[]
  const evidence = fc.uniqueArray(
    fc.record({ at: fc.nat(fields.length - 1), level: fc.nat(2), bits: fc.double({ min: -20, max: 20, noNaN: true }) }),
    { selector: ({ at }) => at, maxLength: fields.length },
  )

  it('is one sentence, and tells of doubts exactly where there are some', () => {
    fc.assert(
      fc.property(evidence, (found) => {
        const told = found.map(({ at, level, bits }) => {
          const field = fields[at] ?? 'name'
          return { field, level: PAIR_LEVELS[field][level] ?? PAIR_LEVELS[field][0], bits }
        })
        const sentence = evidenceSentence(told)
        expect(sentence).toMatch(/^[A-Z].*\.$/)
        const isDoubted = told.some(({ bits }) => bits < -SILENT)
        expect(/; but |only against it/i.test(sentence)).toBe(isDoubted)
      }),
    )
  })

  it('has its bits signed, to a tenth', () => {
    expect([bitsText(5.06), bitsText(-0.64), bitsText(0.04), bitsText(-0.04)]).toEqual(['+5.1', '−0.6', '0', '0'])
  })
})

describe('a text that is too long', () => {
  it('is shown from its start, never with half a character, and says that more follows', () =>
    fc.assert(
      fc.property(fc.string({ unit: 'grapheme' }), fc.integer({ min: 1, max: 20 }), (text, most) => {
        const shown = shortened(text, most)
        if (text.length <= most) return shown === text
        const start = shown.slice(0, -1)
        return (
          shown.endsWith('…') && text.startsWith(start) && start.length >= most - 1 && !/[\uD800-\uDBFF]$/.test(start)
        )
      }),
    ))
})

import { describe, expect, it } from '@jest/globals'
import fc from 'fast-check'
import {
  AMOUNT_FIELDS,
  DATE_FIELDS,
  type Filter,
  type FilterNode,
  PRESENT,
  parseFilter,
  TEXT_FIELDS,
  writeFilter,
} from '../../src/split'

const restOf = (text: string) => {
  const { filter, issues } = parseFilter(text)
  expect(issues).toEqual([])
  return filter.rest
}
const term = (field: string, operator: string, ...values: string[]) => ({ kind: 'term', field, operator, values })
const words = (text: string) => ({ kind: 'words', text })

describe('the language of filters', () => {
  it.each<[string, unknown[]]>([
    ['company:lodge', [term('company', ':', 'lodge')]],
    ['city=Kelso', [term('city', '=', 'Kelso')]],
    ['cost>0.5', [term('cost', '>', '0.5')]],
    ['joined>=2', [term('joined', '>=', '2')]],
    ['added:2026-01..2026-06', [term('added', ':', '2026-01..2026-06')]],
    ['missing:email,city', [term('missing', ':', 'email', 'city')]],
    ['"guest house"', [{ kind: 'phrase', text: 'guest house' }]],
    ['company:"guest house"', [term('company', ':', 'guest house')]],
    ['not line:mobile', [{ kind: 'not', of: term('line', ':', 'mobile') }]],
    ['line:mobile or line:fixed', [{ kind: 'or', of: [term('line', ':', 'mobile'), term('line', ':', 'fixed')] }]],
    ['lodge or inn', [{ kind: 'or', of: [words('lodge'), words('inn')] }]],
    [
      '(lane:text or lane:call) not (kelso inn)',
      [
        { kind: 'or', of: [term('lane', ':', 'text'), term('lane', ':', 'call')] },
        { kind: 'not', of: words('kelso inn') },
      ],
    ],
    ['NOT (a AND b)', [{ kind: 'not', of: words('a b') }]],
  ])('%s', (text, rest) => expect(restOf(text)).toEqual(rest))

  it('has facets and words apart, wherever they stand', () =>
    expect(parseFilter('oldershaw (line:mobile) and country:GB company:inn causeway').filter).toEqual({
      piles: { line: ['mobile'], country: ['GB'] },
      words: 'oldershaw causeway',
      rest: [term('company', ':', 'inn')],
    }))

  it.each(['+44 (0)7911 204481', '(0151) 555 0132', '(030)123456'])('takes %s for a number as it is dialled', (text) =>
    expect(parseFilter(text).filter).toEqual({ piles: {}, words: text, rest: [] }),
  )

  it.each<[string, string, number, number]>([
    ['(line:mobile', 'unbalanced', 0, 1],
    ['line:mobile)', 'unbalanced', 11, 1],
    ['a or', 'incomplete', 2, 2],
    ['or', 'incomplete', 0, 2],
    ['not', 'incomplete', 0, 3],
    ['()', 'unbalanced', 1, 1],
    ['city:', 'incomplete', 0, 5],
    ['x cost>many', 'no-number', 2, 9],
    ['added>soon', 'no-date', 0, 10],
    ['city>Kelso', 'no-order', 0, 10],
    ['missing:emial', 'unknown-value', 0, 13],
    ['compny:inn', 'unknown-field', 0, 10],
  ])('%s is told: %s, with its place', (text, code, at, length) => {
    const { issues, filter } = parseFilter(text)
    expect(issues).toMatchObject([{ code, at, length }])
    // What cannot be read must not mean everybody.
    if (text !== '()') expect(filter.words).not.toBe('')
  })

  it('offers what was probably meant', () => {
    expect(parseFilter('compny:inn').issues).toMatchObject([{ nearest: 'company' }])
    expect(parseFilter('missing:emial').issues).toMatchObject([{ word: 'emial', nearest: 'email' }])
  })

  const word = fc.constantFrom('inn', 'kelso', 'lodge', 'ås', '+447911', 'x1')
  const leaf: fc.Arbitrary<FilterNode> = fc.oneof(
    word.map((text): FilterNode => ({ kind: 'words', text })),
    fc.tuple(word, word).map(([a, b]): FilterNode => ({ kind: 'phrase', text: `${a} ${b}` })),
    fc
      .tuple(
        fc.constantFrom(...TEXT_FIELDS),
        fc.constantFrom(':', '=', '!=' as const),
        fc.uniqueArray(word, { minLength: 1, maxLength: 3 }),
      )
      .map(([field, operator, values]) => ({ kind: 'term', field, operator, values }) as FilterNode),
    fc
      .tuple(fc.constantFrom(...AMOUNT_FIELDS), fc.constantFrom('<', '>', '<=', '>=', ':'), fc.nat(99))
      .map(([field, operator, n]) => ({ kind: 'term', field, operator, values: [String(n)] }) as FilterNode),
    fc
      .tuple(fc.constantFrom(...DATE_FIELDS), fc.constantFrom('<', '>', ':'))
      .map(([field, operator]) => ({ kind: 'term', field, operator, values: ['2026-11-01'] }) as FilterNode),
    fc
      .uniqueArray(fc.constantFrom(...PRESENT), { minLength: 1, maxLength: 3 })
      .map((values): FilterNode => ({ kind: 'term', field: 'missing', operator: ':', values })),
    fc
      .constantFrom('mobile')
      .map((value): FilterNode => ({ kind: 'term', field: 'line', operator: ':', values: [value] })),
  )
  const { node } = fc.letrec<{ node: FilterNode }>((tie) => ({
    node: fc.oneof(
      { depthSize: 'small' },
      leaf,
      tie('node').map((of): FilterNode => ({ kind: 'not', of })),
      fc.array(tie('node'), { minLength: 2, maxLength: 3 }).map((of): FilterNode => ({ kind: 'or', of })),
      fc.array(tie('node'), { minLength: 2, maxLength: 3 }).map((of): FilterNode => ({ kind: 'and', of })),
    ),
  }))
  /** Whether a filter means somebody, given which leaves do. */
  const means = (filter: Filter, holds: (leaf: string) => boolean): boolean => {
    const all: FilterNode[] = [
      ...Object.entries(filter.piles).map(
        ([field, values]) => ({ kind: 'term', field, operator: ':', values }) as FilterNode,
      ),
      ...(filter.words === '' ? [] : [{ kind: 'words', text: filter.words } as FilterNode]),
      ...filter.rest,
    ]
    return all.every((one) => meansNode(one, holds))
  }
  const meansNode = (one: FilterNode, holds: (leaf: string) => boolean): boolean => {
    if (one.kind === 'and') return one.of.every((inner) => meansNode(inner, holds))
    if (one.kind === 'or') return one.of.some((inner) => meansNode(inner, holds))
    if (one.kind === 'not') return !meansNode(one.of, holds)
    if (one.kind === 'words') return one.text.split(' ').every((single) => holds(`word ${single}`))
    return holds(JSON.stringify(one))
  }

  it('reads back as it was written: it means the same people', () =>
    fc.assert(
      fc.property(node, fc.integer(), (tree, seed) => {
        const written = writeFilter({ piles: {}, words: '', rest: [tree] })
        const { filter, issues } = parseFilter(written)
        expect(issues).toEqual([])
        const holds = (text: string) =>
          [...text].reduce((sum, letter) => (sum * 31 + letter.charCodeAt(0) + seed) | 0, 7) % 2 === 0
        expect([written, means(filter, holds)]).toEqual([written, meansNode(tree, holds)])
        // Written once more, it is the same text.
        const again = writeFilter(filter)
        expect(writeFilter(parseFilter(again).filter)).toBe(again)
      }),
      { numRuns: 400 },
    ))

  it('is read whatever is typed', () =>
    fc.assert(
      fc.property(
        fc.string({ unit: fc.constantFrom('a', ' ', '(', ')', '"', ':', '>', '=', 'or ', 'not ', 'line:', '.', ',') }),
        (text) => {
          const { filter, issues } = parseFilter(text)
          for (const { at, length } of issues) expect(at + length).toBeLessThanOrEqual(text.length)
          parseFilter(writeFilter(filter))
        },
      ),
    ))
})

import { describe, expect, it } from '@jest/globals'
import type { DirectoryPlan, DirectorySearch } from '@upper-field/contract'
import { planText, standsAt } from '../src/directory/directoryText'

const plan = (more: Partial<DirectoryPlan> = {}): DirectoryPlan => ({
  total: 120,
  leftOut: 20,
  named: 400,
  isNamedInPart: false,
  pricePer: 'candidate',
  price: 60_000,
  calls: 2,
  most: 6_000_000,
  ...more,
})

describe('what a search comes to', () => {
  it.each<[Partial<DirectoryPlan>, readonly string[]]>([
    [{ total: 0, leftOut: 0 }, ['The directory has none there.']],
    [
      {},
      [
        'The directory has 120 businesses there.',
        '20 of them are in this list already, or suppressed: it leaves those out, for nothing.',
        '€0.06 for each business it tells of.',
      ],
    ],
    [
      { leftOut: 0, pricePer: 'call', price: 2_000_000, calls: 3 },
      [
        'The directory has 120 businesses there.',
        'None of them is in this list already, or suppressed.',
        '€2.00 for each of 3 pages.',
      ],
    ],
    [
      { leftOut: 0, named: 0, total: 1 },
      ['The directory has 1 business there.', '€0.06 for each business it tells of.'],
    ],
  ])('%j', (more, lines) => expect(planText(plan(more))).toEqual(lines))

  it('says where it cannot be told of everybody', () =>
    expect(planText(plan({ isNamedInPart: true })).join(' ')).toContain('may be paid for, and are not taken'))
})

const search = (more: Partial<DirectorySearch> = {}) =>
  ({
    total: 120,
    leftOut: 20,
    isWhole: false,
    became: { taken: 50, 'there-already': 5, suppressed: 1, closed: 3, 'told-before': 1 },
    ...more,
  }) as DirectorySearch

describe('where a search stands', () => {
  it.each<[Partial<DirectorySearch>, string | undefined, string]>([
    [{}, 'running', '80 of 120 businesses so far'],
    [{ isWhole: true }, 'done', '60 businesses told of'],
    [{}, 'failed', 'failed with 40 businesses left'],
    [{}, 'paused', 'paused with 40 businesses left'],
    [{}, 'done', 'ended at its amount, 40 businesses left'],
  ])('%j, %s', (more, state, line) =>
    expect(standsAt(search(more), state === undefined ? undefined : { state: state as 'done' })).toBe(line),
  )
})

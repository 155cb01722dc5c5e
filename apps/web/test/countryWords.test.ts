import { describe, expect, it } from '@jest/globals'
import { hintFor, isQuestioned, sentenceOf } from '../src/bring/countryWords'

const counted = (rows: number, cells: number, read: number) => ({ rows, cells, read })

describe('what a country would read, in words', () => {
  it.each([
    [counted(6, 7, 6), '6 rows, 7 numbers: 6 will be read, 1 not.'],
    [counted(6, 7, 7), '6 rows, 7 numbers: all will be read.'],
    [counted(1, 1, 1), '1 row, 1 number: it will be read.'],
    [counted(3, 0, 0), '3 rows, 0 numbers.'],
    [counted(12_000, 9_000, 0), '12,000 rows, 9,000 numbers: 0 will be read, 9,000 not.'],
  ])('%j', (count, sentence) => expect(sentenceOf(count)).toBe(sentence))
})

describe('a country', () => {
  it.each([
    [counted(6, 8, 0), true],
    [counted(6, 8, 1), true],
    [counted(6, 8, 2), false],
    [counted(6, 8, 8), false],
    // One number, or none, is too little to question anybody by.
    [counted(6, 1, 0), false],
    [counted(6, 0, 0), false],
  ])('%j: questioned %s', (count, questioned) => expect(isQuestioned(count)).toBe(questioned))

  const inferred = { suggested: 'US', confidence: 0.99, why: 'United States: 5 of 5 numbers are valid there.' }
  const open = { suggested: null, confidence: 0.4, why: 'The rows differ.' }
  it('says where its proposal comes from', () => {
    expect(hintFor(inferred, 'US', false)).toBe('Proposed. United States: 5 of 5 numbers are valid there.')
    expect(hintFor(inferred, 'US', true)).toBe('As last time this layout was brought in.')
    expect(hintFor(inferred, 'DE', false)).toMatch(/^Numbers without a code are dialled from here/)
    expect(hintFor(open, null, false)).toMatch(/^The rows differ\. Numbers without a code/)
  })
})

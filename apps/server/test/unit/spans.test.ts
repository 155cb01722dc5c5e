import { expect, it } from '@jest/globals'
import fc from 'fast-check'
import { inSpans, SPAN } from '../../src/db/spans'

/** The ids that spans hold, read bit by bit from the left as PostgreSQL does. */
const idsIn = (spans: ReadonlyMap<number, string>): number[] =>
  [...spans].flatMap(([span, bits]) => {
    const digits = [...bits.slice(1)].map((digit) => Number.parseInt(digit, 16).toString(2).padStart(4, '0')).join('')
    return [...digits].flatMap((bit, place) => (bit === '1' ? span * SPAN + place : []))
  })

it('hold every id once and no other, each in a span of its own length', () =>
  fc.assert(
    fc.property(fc.array(fc.nat(40_000), { maxLength: 60 }), (ids) => {
      const spans = inSpans(ids)
      expect([...spans.values()].every((bits) => bits.length === 1 + SPAN / 4 && bits.startsWith('X'))).toBe(true)
      expect(idsIn(spans).sort((a, b) => a - b)).toEqual([...new Set(ids)].sort((a, b) => a - b))
    }),
    { numRuns: 30 },
  ))

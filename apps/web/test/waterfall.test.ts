import { describe, expect, it } from '@jest/globals'
import type { FillEstimate, FillResult } from '@upper-field/contract'
import fc from 'fast-check'
import { partOf, waterfallFigures } from '../src/fill/fallParts'
import { dropPath, spillPath, streamsOf, thicknessOf } from '../src/fill/fallShape'

const result = (provider: string, asked: number, accepted: number): FillResult['providers'][number] => ({
  provider,
  asked,
  candidates: accepted,
  accepted,
  setAside: 0,
  waiting: 0,
  failed: 0,
  onlyHere: 0,
  medianWait: null,
  isSetAside: false,
  cost: 0,
})
const estimate = {
  wanting: 100,
  providers: [
    { provider: 'a', askable: 80, askedLately: 5 },
    { provider: 'b', askable: 60, askedLately: 0 },
  ],
} as unknown as FillEstimate
const run = { contacts: 50, found: 30, providers: [result('a', 50, 20), result('c', 30, 10)] } as unknown as FillResult

describe('figures of the waterfall', () => {
  it('tell before a run whom each can be asked about', () =>
    expect(waterfallFigures(['b', 'a'], estimate, undefined)).toEqual({
      whole: 100,
      left: null,
      runsOff: 80,
      falls: [
        { id: 'b', entered: 60, askedLately: 0, result: null },
        { id: 'a', entered: 80, askedLately: 5, result: null },
      ],
    }))

  it('tell after a run what each gave, and of one that was not in it whom it can be asked about', () => {
    const { whole, falls, left, runsOff } = waterfallFigures(['c', 'b', 'a'], estimate, run)
    expect([whole, left, runsOff]).toEqual([50, 20, 30])
    expect(falls.map(({ id, entered, result: gave }) => [id, entered, gave?.accepted])).toEqual([
      ['c', 30, 10],
      ['b', 60, undefined],
      ['a', 50, 20],
    ])
  })

  it('are nothing where nothing is known yet', () =>
    expect(waterfallFigures(['a'], undefined, undefined)).toEqual({
      whole: 0,
      left: null,
      runsOff: 0,
      falls: [{ id: 'a', entered: 0, askedLately: 0, result: null }],
    }))
})

describe('the drawing of the waterfall', () => {
  const part = fc.double({ min: -1, max: 2, noNaN: true })

  it('is as wide as what comes, never wider than the whole, and never gone where something comes', () =>
    fc.assert(
      fc.property(fc.array(part, { maxLength: 10 }), (parts) => {
        const streams = streamsOf(parts)
        const [whole] = streamsOf([1])
        streams.forEach((stream, at) => {
          const here = parts[at] ?? 0
          expect(stream.width > 0).toBe(here > 0)
          expect(stream.width).toBeLessThanOrEqual(whole?.width ?? 0)
          if (at > 0) expect(stream.left).toBeGreaterThan(streams[at - 1]?.left ?? 0)
        })
        const sorted = [...streams].sort((a, b) => a.width - b.width)
        expect(sorted.map(({ width }) => width)).toEqual(
          streamsOf([...parts].sort((a, b) => a - b)).map(({ width }) => width),
        )
      }),
    ))

  it('has paths of numbers alone', () =>
    fc.assert(
      fc.property(part, part, (from, to) => {
        const [a, b] = streamsOf([from, to])
        if (!a || !b) throw new Error('two parts are two streams')
        for (const path of [dropPath(a, b, 52, 84), spillPath(a, to, 52)])
          expect(
            path
              .replace(/[MCHZ]/g, ' ')
              .trim()
              .split(/\s+/)
              .every((n) => Number.isFinite(Number(n))),
          ).toBe(true)
        expect(thicknessOf(from) > 0).toBe(from > 0)
      }),
    ))

  it('takes no part of nothing', () => {
    expect(partOf(5, 0)).toBe(0)
    expect(partOf(5, 10)).toBe(0.5)
    expect(partOf(50, 10)).toBe(1)
  })
})

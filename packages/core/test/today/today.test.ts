import { describe, expect, it } from '@jest/globals'
import fc from 'fast-check'
import { type AudienceFacts, type ListFacts, type Pressure, todayOf } from '../../src/today'

const NOW = Date.parse('2026-11-28T08:00:00Z')
const inDays = (days: number) => new Date(NOW + days * 86_400_000).toISOString()
const audience = (more: Partial<AudienceFacts> = {}): AudienceFacts => ({
  id: 'a',
  listId: 'l',
  listName: 'Terraces',
  name: 'Autumn',
  destination: 'Somewhere',
  people: 100,
  owed: 0,
  owedSince: null,
  state: 'usable',
  says: '',
  dueAt: null,
  lapsesAt: null,
  cameSince: 0,
  leftSince: 0,
  ...more,
})
const list = (more: Partial<ListFacts> = {}): ListFacts => ({
  id: 'l',
  name: 'Terraces',
  toReview: 0,
  toDecide: 0,
  notSent: 0,
  callsPromised: 0,
  waiting: [],
  stopped: [],
  ...more,
})
const told = (
  audiences: AudienceFacts[],
  lists: ListFacts[] = [],
  month = { spent: 0, limit: null as number | null },
) => todayOf({ audiences, lists, month }, NOW).map(({ kind, pressure }) => `${kind} ${pressure}`)

describe('today', () => {
  it('holds nothing where all is done', () => expect(told([audience()], [list()])).toEqual([]))

  it.each<[string, Partial<AudienceFacts>, string[]]>([
    ['somebody has to leave', { owed: 2, owedSince: inDays(-0.5) }, ['removals soon']],
    ['that is overdue', { owed: 2, owedSince: inDays(-2) }, ['removals-overdue now']],
    ['it is refused', { state: 'refused' }, ['refused now']],
    ['it has lapsed', { state: 'lapsed', lapsesAt: inDays(-1) }, ['lapsed now']],
    ['it lapses in two days', { lapsesAt: inDays(2) }, ['lapses now']],
    ['it lapses in six days', { lapsesAt: inDays(6) }, ['lapses soon']],
    ['it lapses in a month', { lapsesAt: inDays(30) }, []],
    ['it is due', { dueAt: inDays(-1) }, ['refresh-due soon']],
    ['it is due tomorrow', { dueAt: inDays(1) }, []],
    ['it is due and lapses', { dueAt: inDays(-1), lapsesAt: inDays(1) }, ['lapses now']],
  ])('tells of an audience where %s', (_, more, expected) => expect(told([audience(more)])).toEqual(expected))

  it('tells of lists and of money', () => {
    expect(told([], [list({ toReview: 3, toDecide: 4, notSent: 5, callsPromised: 1 })])).toEqual([
      'calls-promised soon',
      'review quiet',
      'not-sent quiet',
    ])
    expect(
      told([], [list({ waiting: [{ name: 'x', rows: 9 }], stopped: [{ kind: 'fill', at: inDays(-1) }] })]),
    ).toEqual(['job-stopped soon', 'batch-waits quiet'])
    expect(told([], [], { spent: 79, limit: 100 })).toEqual([])
    expect(told([], [], { spent: 80, limit: 100 })).toEqual(['budget soon'])
    expect(told([], [], { spent: 100, limit: 100 })).toEqual(['budget now'])
  })

  const anyAudience = fc
    .record({
      owed: fc.nat(3),
      owedSince: fc.option(fc.integer({ min: -5, max: 0 }).map(inDays)),
      state: fc.constantFrom('usable', 'refused', 'lapsed', 'matching'),
      dueAt: fc.option(fc.integer({ min: -5, max: 5 }).map(inDays)),
      lapsesAt: fc.option(fc.integer({ min: -5, max: 20 }).map(inDays)),
    })
    .map(audience)
  const anyList = fc
    .record({ toReview: fc.nat(3), toDecide: fc.nat(3), notSent: fc.nat(3), callsPromised: fc.nat(2) })
    .map(list)

  it('is in the order of how pressing it is, whatever there is', () =>
    fc.assert(
      fc.property(fc.array(anyAudience), fc.array(anyList), (audiences, lists) => {
        const order: Pressure[] = ['now', 'soon', 'quiet']
        const ranks = todayOf({ audiences, lists, month: { spent: 0, limit: null } }, NOW).map(({ pressure }) =>
          order.indexOf(pressure),
        )
        expect(ranks).toEqual(ranks.toSorted((a, b) => a - b))
      }),
    ))
})

import { describe, expect, it } from '@jest/globals'
import { FillOptions } from '@upper-field/contract'
import type { ProviderTerms } from '@upper-field/core/fill'
import { decide, type Known } from '../../src/fill/moves'
import type { AttemptRow, Run, SearchedContact } from '../../src/fill/run'

const provider = (id: string, amount: number): ProviderTerms => ({
  id,
  gives: ['mobile'],
  accepts: ['name-and-company', 'profile'],
  charge: { per: 'call', amount },
  mostCandidates: 1,
})
const run = (options: Partial<FillOptions> = {}, more: Partial<Run> = {}): Run => {
  const all = FillOptions.parse(options)
  const order = ['candle', 'lantern']
  const plan = {
    order,
    options: all,
    providers: [provider('candle', 100), provider('lantern', 400)],
    perSecond: new Map(),
    register: null,
    verifier: null,
  }
  return { jobId: 'j', options: all, order, plan, failing: new Set(), asking: 'until-found', ...more } as Run
}
const contact: SearchedContact = {
  id: 7,
  fullName: 'Maren Oldershaw',
  company: 'Causeway',
  domain: '',
  profile: '',
  email: '',
  country: 'GB',
  lacks: ['mobile'],
  isOut: false,
}
const made = (provider: string, state: AttemptRow['state']) => ({ provider, state, found: [] }) as unknown as AttemptRow
const known = (attempts: readonly AttemptRow[] = [], more: Partial<Known> = {}): Known => ({
  made: new Map([[7, attempts]]),
  before: new Map(),
  asked: new Map(),
  room: new Map(),
  spentOn: new Map(),
  left: new Map(),
  ...more,
})

describe('the next move for a contact', () => {
  it('asks who comes first, at the most that can cost', () => {
    expect(decide(run(), contact, known())).toMatchObject({ provider: 'candle', most: 100, isWaiting: false })
    expect(decide(run(), contact, known([made('candle', 'nothing')]))).toMatchObject({ provider: 'lantern', most: 400 })
  })

  it('asks nothing more about somebody who was suppressed meanwhile, but waits for what was asked', () => {
    const suppressed = { ...contact, isOut: true }
    expect(decide(run(), suppressed, known())).toEqual({ contact: suppressed, state: 'left-out' })
    expect(decide(run(), suppressed, known([made('candle', 'waiting')]))).toEqual({
      contact: suppressed,
      state: 'waiting',
    })
    // What was found of them before is found all the same.
    const found = { ...made('candle', 'accepted'), found: ['mobile' as const] }
    expect(decide(run(), suppressed, known([found]))).toEqual({ contact: suppressed, state: 'found' })
  })

  it('leaves out who keeps failing, had no answer lately, or is asked no more by its conditions', () => {
    const asks = (one: Run, two: Known) => decide(one, contact, two)
    expect(asks(run({}, { failing: new Set(['candle']) }), known())).toMatchObject({ provider: 'lantern' })
    expect(asks(run(), known([], { before: new Map([[7, new Set(['candle'])]]) }))).toMatchObject({
      provider: 'lantern',
    })
    const capped = run({ conditions: { candle: { minScore: 0, mostAsked: 3, inputs: [], countries: [] } } })
    expect(asks(capped, known([], { asked: new Map([['candle', 3]]) }))).toMatchObject({ provider: 'lantern' })
    const byProfile = run({
      conditions: { candle: { minScore: 0, mostAsked: null, inputs: ['profile'], countries: [] } },
    })
    expect(asks(byProfile, known())).toMatchObject({ provider: 'lantern' })
  })

  it('asks about contacts of a country alone, where a step is for that', () => {
    const abroad = run({
      conditions: { candle: { minScore: 0, mostAsked: null, inputs: [], countries: ['DE', 'AT'] } },
    })
    expect(decide(abroad, contact, known())).toMatchObject({ provider: 'lantern' })
    expect(decide(abroad, { ...contact, country: 'AT' }, known())).toMatchObject({ provider: 'candle' })
    // A plan of before, that says nothing of countries, is for all of them.
    const before = { candle: { minScore: 0, mostAsked: null, inputs: [] } } as never
    expect(decide(run({ conditions: before }), contact, known())).toMatchObject({ provider: 'candle' })
  })

  it('spends no more on a contact than it may', () => {
    const limited = run({ perContact: 300 })
    expect(decide(limited, contact, known())).toMatchObject({ provider: 'candle' })
    expect(decide(limited, contact, known([made('candle', 'nothing')], { spentOn: new Map([[7, 100]]) }))).toEqual({
      contact,
      state: 'not-found',
    })
  })

  it('asks nobody whose month is spent, and counts what it takes of it', () => {
    const left = new Map([['candle', 150]])
    const counts = known([], { left })
    expect(decide(run(), contact, counts)).toMatchObject({ provider: 'candle' })
    expect(left.get('candle')).toBe(50)
    expect(decide(run(), contact, counts)).toMatchObject({ provider: 'lantern' })
    expect(left.get('candle')).toBe(50)
  })

  it('asks nobody where whoever checks the answer may charge no more, and counts what a check takes', () => {
    const checked = run()
    const plan = { ...checked.plan, register: { id: 'pellow', price: 40, countries: null } }
    const left = new Map([
      ['pellow', 70],
      ['candle', 250],
    ])
    const counts = known([], { left })
    const asking = decide({ ...checked, plan }, contact, counts)
    expect(asking).toMatchObject({ provider: 'candle', most: 140, checks: { pellow: 40 } })
    expect([...left]).toEqual([
      ['pellow', 30],
      ['candle', 150],
    ])
    expect(decide({ ...checked, plan }, contact, counts)).toEqual({ contact, state: 'not-found' })
    // Without checks nothing of the register's is taken.
    expect(decide(checked, contact, counts)).toMatchObject({ provider: 'candle', most: 100, checks: {} })
  })

  it('counts caps and room as it goes', () => {
    const counts = known([], { room: new Map([['candle', 1]]) })
    expect(decide(run(), contact, counts)).toMatchObject({ provider: 'candle' })
    expect(counts.asked.get('candle')).toBe(1)
    // Whoever takes no more questions just now is asked in the next step: nobody else takes its turn.
    expect(decide(run(), contact, counts)).toEqual({ contact, isLater: true })
  })
})

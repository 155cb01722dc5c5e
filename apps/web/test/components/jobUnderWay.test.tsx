/** @jest-environment <rootDir>/apps/web/test/components/browser.mjs */
import { beforeEach, describe, expect, it } from '@jest/globals'
import { screen, waitFor } from '@testing-library/react'
import type { Job, PairState } from '@upper-field/contract'
import { DEFAULT_SURVIVORSHIP, DEFAULT_THRESHOLDS } from '@upper-field/core/pair'
import { PairBench } from '../../src/pair/PairBench'
import { PairLines } from '../../src/pair/PairLines'
import { JobUnderWay } from '../../src/shell/JobUnderWay'
import { jobOf } from './jobs'
import { OPERATOR, rendered } from './rendered'

const pairing = (more: Partial<Job> = {}): Job =>
  jobOf({ kind: 'pair', unit: 'contacts', state: 'running', phase: 'comparing', done: 30, total: 120, ...more })

const NEVER_PAIRED: PairState = {
  ranAt: null,
  contacts: 0,
  thresholds: DEFAULT_THRESHOLDS,
  bins: [],
  groups: [],
  joined: 0,
  toDecide: 0,
  keptApart: 0,
  survivorship: DEFAULT_SURVIVORSHIP,
}
const NO_PAIRS = { total: 0, pairs: [], next: null }

let sighted: (string | null)[] = []
beforeEach(() => {
  sighted = []
  Element.prototype.scrollIntoView = function (this: Element) {
    sighted.push(this.getAttribute('aria-label'))
  }
})

describe('the job of a kind in the list that is open', () => {
  const shown = (jobs: Job[]) => rendered(<JobUnderWay of={['pair', 'check']} />, { readJobs: jobs })

  it.each<Job['state']>(['queued', 'running', 'waiting', 'stopping', 'pausing', 'paused'])(
    'is shown while it is %s',
    async (state) => {
      shown([jobOf({ kind: 'tidy' }), pairing({ state })])
      expect((await screen.findByRole('region', { name: 'Under way' })).textContent).toContain(
        'Looking for who is one person',
      )
      expect(sighted).toEqual(['Under way'])
    },
  )

  it.each<Job['state']>(['done', 'stopped', 'failed'])(
    'is not shown once it is %s, nor is one of another kind',
    async (state) => {
      const { sent } = shown([pairing({ state }), jobOf({ kind: 'tidy', state: 'running' })])
      await waitFor(() => expect(sent.map(({ name }) => name)).toEqual(['readJobs']))
      await Promise.resolve()
      expect(screen.queryByRole('region')).toBeNull()
    },
  )
})

describe('a list that is being paired', () => {
  it('says so in place of what nobody has looked for yet', async () => {
    const answers = { readMe: OPERATOR, readPairs: NO_PAIRS }
    const before = rendered(<PairBench state={NEVER_PAIRED} />, { ...answers, readJobs: [pairing({ state: 'done' })] })
    expect(await screen.findByRole('heading', { name: 'Nobody has looked for likeness yet' })).toBeTruthy()
    before.unmount()
    rendered(<PairBench state={NEVER_PAIRED} />, { ...answers, readJobs: [pairing()] })
    expect(await screen.findByRole('heading', { name: 'Contacts are being compared' })).toBeTruthy()
  })

  it('is not paired again meanwhile: how far it is stands there, with a way to stop', async () => {
    const job = pairing()
    const { user, sent } = rendered(<PairLines state={NEVER_PAIRED} />, {
      readMe: OPERATOR,
      readDecided: [],
      readJobs: [job],
      stopJob: job,
    })
    await screen.findByRole('progressbar', { name: 'Looking for who is one person' })
    expect(screen.queryByRole('button', { name: 'Look for one person in several contacts' })).toBeNull()
    await user.click(screen.getByRole('button', { name: 'Stop' }))
    expect(sent.map(({ name }) => name)).toContain('stopJob')
  })

  it('can be paired where no pairing is under way', async () => {
    rendered(<PairLines state={NEVER_PAIRED} />, { readMe: OPERATOR, readDecided: [], readJobs: [] })
    const look = await screen.findByRole('button', { name: 'Look for one person in several contacts' })
    await waitFor(() => expect(look).toHaveProperty('disabled', false))
  })
})

/** @jest-environment <rootDir>/apps/web/test/components/browser.mjs */
import { describe, expect, it } from '@jest/globals'
import { screen } from '@testing-library/react'
import type { HarvestDetail, Job } from '@upper-field/contract'
import { HarvestSoFar } from '../../src/harvest/HarvestSoFar'
import { SiteList } from '../../src/harvest/SiteList'
import { HARVEST, SITE } from './harvests'
import { jobOf } from './jobs'
import { type Answers, Refusal, rendered } from './rendered'

const reading = (more: Partial<Job> = {}) =>
  jobOf({ kind: 'harvest', unit: 'pages', state: 'running', done: 3, total: 12, finishedAt: null, ...more })

describe('the sites of a harvest', () => {
  const list = (job: Job | undefined, mayChange = true) =>
    rendered(<SiteList harvest={HARVEST} job={job} chosen={SITE} mayChange={mayChange} onChoose={() => {}} />, {
      pauseJob: reading(),
      stopJob: reading(),
      resumeJob: reading(),
    })

  it('tell how far they are read, and are paused and stopped', async () => {
    const { user, sent } = list(reading())
    expect(screen.getByRole('progressbar', { name: 'Sites read' })).toHaveProperty('value', 0.25)
    expect(screen.getByRole('button', { name: /larch\.example/ }).getAttribute('aria-pressed')).toBe('true')
    await user.click(screen.getByRole('button', { name: 'pause' }))
    await user.click(screen.getByRole('button', { name: 'stop' }))
    expect(sent.map(({ name }) => name)).toEqual(['pauseJob', 'stopJob'])
  })

  it.each(['paused', 'stopped', 'failed'] as const)('go on where they were %s', async (state) => {
    const { user, sent } = list(reading({ state }))
    await user.click(screen.getByRole('button', { name: 'go on' }))
    expect(sent.map(({ name }) => name)).toEqual(['resumeJob'])
  })

  it('are held up by nobody who may only look', () => {
    list(reading(), false)
    expect(screen.queryByRole('button', { name: 'pause' })).toBeNull()
  })
})

describe('the batch of a harvest', () => {
  const soFar = (more: Partial<HarvestDetail>, job: Job | undefined, answers: Answers = {}) =>
    rendered(<HarvestSoFar harvest={{ ...HARVEST, ...more }} job={job} mayChange={true} />, answers)

  it('is made once nothing is read any more', () => {
    const busy = soFar({}, reading())
    expect(screen.getByRole('button', { name: 'Bring in 1 business' })).toHaveProperty('disabled', true)
    expect(screen.getByText(/Once all pages are read/)).toBeTruthy()
    busy.unmount()
    soFar({}, reading({ state: 'done' }))
    expect(screen.getByRole('button', { name: 'Bring in 1 business' })).toHaveProperty('disabled', false)
    expect(screen.getByText('What nobody has looked at is left out.')).toBeTruthy()
  })

  it('says why it is not, and leads on once it is', async () => {
    const { user, unmount } = soFar({}, undefined, {
      takeHarvest: () => new Refusal(422, 'nothing-found', 'There would be no row.'),
    })
    await user.click(screen.getByRole('button', { name: 'Bring in 1 business' }))
    expect(await screen.findByText('There would be no row.')).toBeTruthy()
    unmount()
    soFar({ batchId: jobOf().id }, undefined)
    expect(screen.getByRole('link', { name: 'Tidy' })).toBeTruthy()
  })
})

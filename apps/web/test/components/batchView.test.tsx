/** @jest-environment <rootDir>/apps/web/test/components/browser.mjs */
import { beforeEach, describe, expect, it } from '@jest/globals'
import { screen, waitFor } from '@testing-library/react'
import type { Batch, Job } from '@upper-field/contract'
import { BatchView } from '../../src/bring/BatchView'
import { batchOf } from './batches'
import { jobOf } from './jobs'
import { OPERATOR, rendered } from './rendered'

beforeEach(() => {
  Element.prototype.scrollIntoView = () => {}
})

const shown = (batch: Batch, { jobs = [], mayChange = true }: { jobs?: Job[]; mayChange?: boolean } = {}) =>
  rendered(<BatchView batch={batch} mayChange={mayChange} job={<p>how far it is read</p>} />, {
    readMe: OPERATOR,
    readJobs: jobs,
    readHeld: [],
    takeBatchBack: batch,
    bringBatchBack: batch,
    throwAway: {},
  })

describe('a batch', () => {
  it.each<[Batch['state'], RegExp, string]>([
    ['ready', /^Take back 40 rows$/, 'takeBatchBack'],
    ['taken-back', /^Bring back 40 rows$/, 'bringBatchBack'],
    ['stopped', /^Throw away$/, 'throwAway'],
    ['failed', /^Throw away$/, 'throwAway'],
  ])('that is %s can be acted on in one way', async (state, name, call) => {
    const { user, sent } = shown(batchOf({ state }))
    const acts = screen.getAllByRole('button', { name: /Take back|Bring back|Throw away/ })
    expect(acts).toHaveLength(1)
    await user.click(screen.getByRole('button', { name }))
    await waitFor(() => expect(sent.map((one) => one.name)).toContain(call))
  })

  it('is acted on by nobody who may only look', () => {
    shown(batchOf(), { mayChange: false })
    expect(screen.queryByRole('button', { name: /Take back|Read it otherwise/ })).toBeNull()
  })

  it.each<Job['kind']>(['take-back', 'bring-back'])(
    'waits for the end of a %s, and tells how far that is',
    async (kind) => {
      const job = jobOf({ kind, unit: 'contacts', state: 'running', phase: 'parting', phaseShare: 0.25 })
      shown(batchOf({ state: kind === 'take-back' ? 'ready' : 'taken-back' }), { jobs: [job] })
      expect(await screen.findByRole('progressbar')).toHaveProperty('value', 0.25)
      expect(screen.getByRole('button', { name: /40 rows$/ })).toHaveProperty('disabled', true)
    },
  )

  it('tells how far it is read until it is shown, and why it was not', () => {
    const reading = shown(batchOf({ state: 'reading' }))
    expect(screen.getByText('how far it is read')).toBeTruthy()
    reading.unmount()
    shown(batchOf({ state: 'failed', problem: 'disk-full' }))
    expect(screen.getByText(/^The disk of the database was full/)).toBeTruthy()
  })

  it('says that its file was brought in before, and where', () => {
    const sameFile = [{ listName: 'Autumn', name: 'Fair badges' }] as unknown as Batch['sameFile']
    const { container } = shown(batchOf({ sameFile }))
    expect(screen.queryByText('how far it is read')).toBeNull()
    expect(container.textContent).toMatch(/The very same file is also “Fair badges” in Autumn/)
  })
})

/** @jest-environment <rootDir>/apps/web/test/components/browser.mjs */
import { describe, expect, it } from '@jest/globals'
import { screen } from '@testing-library/react'
import type { Job } from '@upper-field/contract'
import { JobLine, JobStrip } from '../../src/shell/JobStrip'
import { jobOf } from './jobs'
import { Refusal, rendered } from './rendered'

const shown = (more: Partial<Job>) => {
  const job = jobOf(more)
  return rendered(<JobLine job={job} />, { stopJob: job, pauseJob: job, resumeJob: job })
}
const RUNNING: Partial<Job> = { state: 'running', done: 12, total: 48, finishedAt: null }

describe('the line of a job', () => {
  it('tells how far it is, and lets it rest or end', async () => {
    const { user, sent, container } = shown(RUNNING)
    expect(screen.getByRole('progressbar', { name: 'Fetching businesses from a directory' })).toHaveProperty(
      'value',
      0.25,
    )
    expect(container.textContent).toMatch(/12 of 48 businesses/)
    await user.click(screen.getByRole('button', { name: 'Pause' }))
    await user.click(screen.getByRole('button', { name: 'Stop' }))
    expect(sent.map(({ name }) => name)).toEqual(['pauseJob', 'stopJob'])
  })

  it('counts bytes as bytes, and knows no end where none is told', () => {
    const { container } = shown({ ...RUNNING, kind: 'bring-in', unit: 'bytes', done: 2_400_000, total: null })
    expect(container.textContent).toContain('2.4 MB')
    expect(container.textContent).not.toContain(' of ')
  })

  it('tells how far its phase is, where that is told, in place of what is counted', () => {
    const joining: Partial<Job> = { kind: 'bring-in', unit: 'bytes', done: 48, phase: 'joining', phaseShare: 0.437 }
    const { container } = shown({ ...RUNNING, ...joining })
    expect(screen.getByRole('progressbar')).toHaveProperty('value', 0.437)
    expect(container.textContent).toContain('joining duplicates')
    expect(container.textContent).toContain('43 %')
    expect(container.textContent).not.toContain(' of ')
  })

  it('does not tell what was counted where it is beyond that', () => {
    const { container } = shown({ ...RUNNING, kind: 'take-back', unit: 'contacts', done: 0, phase: 'counting' })
    expect(screen.getByRole('progressbar')).toHaveProperty('value', 1)
    expect(container.textContent).toContain('counting the list')
    expect(container.textContent).not.toContain(' of ')
  })

  it.each<[Partial<Job>, RegExp]>([
    [{ state: 'failed', problem: 'answer-too-late' }, /took too long to answer/],
    [{ state: 'failed', problem: 'a code nobody knows' }, /failed/i],
    [{ state: 'stopped' }, /stopped/],
  ])('%j says what happened, and offers to go on', async (more, says) => {
    const { user, sent, container } = shown(more)
    expect(container.textContent).toMatch(says)
    await user.click(screen.getByRole('button'))
    expect(sent.map(({ name }) => name)).toEqual(['resumeJob'])
  })

  it.each<[string, Partial<Job>, 'pauseJob' | 'stopJob' | 'resumeJob']>([
    ['Pause', RUNNING, 'pauseJob'],
    ['Stop', RUNNING, 'stopJob'],
    ['Go on', { state: 'paused' }, 'resumeJob'],
  ])('tells why “%s” was refused', async (name, more, call) => {
    const refused = () => new Refusal(409, 'job-over', 'The job has ended meanwhile.')
    const { user } = rendered(<JobLine job={jobOf(more)} />, { [call]: refused })
    await user.click(screen.getByRole('button', { name }))
    expect((await screen.findByRole('alert')).textContent).toBe('The job has ended meanwhile.')
  })

  it('of what has become dearer than was agreed to says so, and offers no way on at that price', () => {
    const { container } = shown({ state: 'failed', kind: 'check', unit: 'numbers', problem: 'costs-more' })
    expect(container.textContent).toMatch(/nothing was asked and nothing paid. Start it again/)
    expect(screen.queryByRole('button')).toBeNull()
  })

  it('offers nothing once it is done', () => {
    shown({})
    expect(screen.queryByRole('button')).toBeNull()
    expect(screen.queryByRole('progressbar')).toBeNull()
  })
})

describe('the jobs of a list', () => {
  const strip = (jobs: readonly Job[]) => rendered(<JobStrip listId="l1" />, { readJobs: [...jobs] })

  it('show the one under way, and all of them a click away', async () => {
    const { user } = strip([jobOf(RUNNING), jobOf({ id: crypto.randomUUID(), kind: 'tidy', unit: 'contacts' })])
    await user.click(await screen.findByRole('button', { name: 'Fetching businesses from a directory · 25 %' }))
    expect(await screen.findByText('Tidying')).toBeTruthy()
  })

  it('tell what one is at, where all that is counted is done', async () => {
    strip([jobOf({ ...RUNNING, kind: 'bring-in', unit: 'bytes', done: 48, phase: 'joining' })])
    expect(await screen.findByRole('button', { name: 'Bringing in · joining duplicates' })).toBeTruthy()
  })

  it('tell how far that is, where it is told', async () => {
    strip([jobOf({ ...RUNNING, kind: 'tidy', unit: 'contacts', done: 0, phase: 'joining', phaseShare: 0.5 })])
    expect(await screen.findByRole('button', { name: 'Tidying · joining duplicates 50 %' })).toBeTruthy()
  })

  it('tell that the list is counted, whatever else was counted before', async () => {
    strip([jobOf({ ...RUNNING, kind: 'tidy', unit: 'contacts', done: 0, phase: 'counting' })])
    expect(await screen.findByRole('button', { name: 'Tidying · counting the list' })).toBeTruthy()
  })

  it('show what the search is prepared beside, not that', async () => {
    const index = jobOf({ ...RUNNING, id: crypto.randomUUID(), kind: 'index', unit: 'contacts' })
    strip([index, jobOf(RUNNING)])
    expect(await screen.findByRole('button', { name: 'Fetching businesses from a directory · 25 %' })).toBeTruthy()
  })

  it('show what rests first, however much was done since', async () => {
    const done = Array.from({ length: 30 }, () => jobOf({ id: crypto.randomUUID(), kind: 'tidy', unit: 'contacts' }))
    const { user } = strip([...done, jobOf({ state: 'paused' })])
    await user.click(await screen.findByRole('button', { name: 'Jobs' }))
    const lines = await screen.findAllByRole('listitem')
    expect(lines).toHaveLength(9)
    expect(lines[0]?.textContent).toContain('Fetching businesses from a directory')
  })

  it('are not told of where there was none', async () => {
    const { sent, container } = strip([])
    await screen.findByText('', { selector: 'body' })
    expect(sent.map(({ name }) => name)).toEqual(['readJobs'])
    expect(container.textContent).toBe('')
  })
})

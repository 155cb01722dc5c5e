/** @jest-environment <rootDir>/apps/web/test/components/browser.mjs */
import { describe, expect, it } from '@jest/globals'
import { screen, waitFor, within } from '@testing-library/react'
import type { Edition, Me } from '@upper-field/contract'
import { DispatchView } from '../../src/send/DispatchView'
import { Editions } from '../../src/send/Editions'
import { NewAudienceDialog } from '../../src/send/NewAudienceDialog'
import { audience } from '../madeAudience'
import { JOB_ID, jobOf } from './jobs'
import { type Answers, OPERATOR, Refusal, rendered } from './rendered'

const EDITION: Edition = {
  id: '4f1c2a9e-7d1b-4f0e-9a53-0b6a5f7a2c11',
  jobId: JOB_ID,
  destination: 'people',
  takes: 'people',
  form: 'people',
  fileName: 'terraces-2026-11-28.csv',
  filter: 'lane:text',
  state: 'ready',
  people: 1200,
  leftOut: 34,
  bytes: 48_000,
  sha256: null,
  suppressedSince: 0,
  createdAt: '2026-11-28T09:00:00Z',
}
const BUSY = () => new Refusal(503, 'busy', 'The database is being started.')

describe('the dispatch board', () => {
  const shown = (more: Answers) =>
    rendered(<DispatchView tabs={null} onMakeFile={() => {}} />, {
      readMe: OPERATOR,
      readAudiences: [],
      readDestinations: [],
      readEditions: [],
      readJobs: [],
      ...more,
    })

  it('says what an audience is, where there is none, and counts none', async () => {
    shown({})
    expect(await screen.findByText(/No audience is kept anywhere yet/)).toBeTruthy()
    expect(await screen.findByText('0 audiences · 0 files')).toBeTruthy()
    expect(screen.getByText('No file was written yet.')).toBeTruthy()
  })

  it('counts nothing and says nothing of audiences or files that could not be read', async () => {
    shown({ readAudiences: BUSY, readEditions: BUSY })
    expect(await screen.findAllByRole('alert')).toHaveLength(2)
    expect(screen.queryByText(/0 audiences|0 files|No audience|No file/)).toBeNull()
  })

  it('says of an audience that it is being counted, and reads it again until it is', async () => {
    const sent = { lastEditionAt: '2026-11-27T08:00:00Z', cameSince: 3, leftSince: 0 }
    let isBehind = true
    const answers = () => [audience({ ...sent, cameSince: isBehind ? 3 : 12, isBehind })]
    shown({ readAudiences: answers, readAudience: BUSY })
    expect(await screen.findByText('being counted')).toBeTruthy()
    expect(screen.getByText('+3 −0')).toBeTruthy()
    isBehind = false
    expect(await screen.findByText('+12 −0', {}, { timeout: 20_000 })).toBeTruthy()
    expect(screen.queryByText('being counted')).toBeNull()
  }, 30_000)
})

describe('the files of a list', () => {
  const shown = (edition: Partial<Edition>, me: Me = OPERATOR, more: Answers = {}) =>
    rendered(<Editions />, { readMe: me, readEditions: [{ ...EDITION, ...edition }], readJobs: [], ...more })

  it('can be downloaded with what they hold, once they are ready', async () => {
    shown({})
    const row = within((await screen.findByText(EDITION.fileName)).closest('tr') as HTMLElement)
    expect(row.getByRole('cell', { name: '1,200' })).toBeTruthy()
    expect((await row.findByRole('link', { name: /^Download/ })).getAttribute('href')).toContain(EDITION.id)
    expect(row.getByRole('link', { name: 'its description' }).getAttribute('download')).toBe('datapackage.json')
  })

  it.each<[string, Partial<Edition>, RegExp]>([
    ['somebody in them said no since', { suppressedSince: 2 }, /kept back: 2 people in it said no since/],
    ['they failed', { state: 'failed' }, /failed/],
    ['they held a person who is forgotten', { state: 'withdrawn' }, /withdrawn/],
  ])('cannot be downloaded where %s, and that is said', async (_, more, says) => {
    shown(more)
    const row = (await screen.findByText(EDITION.fileName)).closest('tr') as HTMLElement
    expect(row.textContent).toMatch(says)
    expect(within(row).queryByRole('link')).toBeNull()
  })

  it('are not for viewers', async () => {
    shown({}, { ...OPERATOR, role: 'viewer' })
    await screen.findByText(EDITION.fileName)
    expect(screen.queryByRole('link')).toBeNull()
  })

  it('tell how far one is that is being written', async () => {
    const job = jobOf({ state: 'running', done: 30, total: 120, finishedAt: null })
    shown({ state: 'preparing' }, OPERATOR, { readJobs: [job] })
    const bar = await screen.findByRole('progressbar', { name: `Writing ${EDITION.fileName}` })
    await waitFor(() => expect((bar as HTMLProgressElement).value).toBe(0.25))
  })
})

it('says why no audience can be made, in place of a dialog that never opens', async () => {
  rendered(<NewAudienceDialog onClose={() => {}} onMade={() => {}} />, {
    readDestinations: [],
    readDestinationKeys: BUSY,
    readAudiences: [],
  })
  expect((await within(await screen.findByRole('dialog')).findByRole('alert')).textContent).toMatch(
    /^The database is being started\./,
  )
})

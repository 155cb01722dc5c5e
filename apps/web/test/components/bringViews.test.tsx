/** @jest-environment <rootDir>/apps/web/test/components/browser.mjs */
import { describe, expect, it } from '@jest/globals'
import { screen, within } from '@testing-library/react'
import type { DirectoryRecord, DirectorySearch, Harvest, List, Me } from '@upper-field/contract'
import { DirectorySearchView } from '../../src/directory/DirectorySearchView'
import { DirectoryView } from '../../src/directory/DirectoryView'
import { PagesView } from '../../src/harvest/PagesView'
import { JOB_ID, jobOf as job } from './jobs'
import { listOf } from './lists'
import { type Answers, OPERATOR, Refusal, rendered } from './rendered'
import { service } from './services'

const VIEWER: Me = { ...OPERATOR, role: 'viewer' }
const LIST = listOf()
const SEARCH: DirectorySearch = {
  id: '4f1c2a9e-7d1b-4f0e-9a53-0b6a5f7a2c11',
  listId: LIST.id,
  name: 'Campsites, United Kingdom',
  provider: 'hedgerow',
  trade: { code: 'campsites', name: 'Campsites' },
  place: { code: 'GB', name: 'United Kingdom' },
  jobId: JOB_ID,
  batchId: '6f1c2a9e-7d1b-4f0e-9a53-0b6a5f7a2c11',
  madeBy: 'Maren Oldershaw',
  madeAt: '2026-11-28T09:00:00Z',
  budget: 3_000_000,
  spent: 2_520_000,
  total: 45,
  pages: 1,
  leftOut: 3,
  isWhole: true,
  became: { taken: 32, 'there-already': 8, suppressed: 0, closed: 2, 'told-before': 0 },
}
const ANSWERS: Answers = {
  readMe: OPERATOR,
  readConnections: [service('hedgerow', { role: 'directory', gives: ['businesses'] })],
  readDirectorySearches: [SEARCH],
  readDirectorySearch: SEARCH,
  readJobs: [job()],
}

describe('what comes from directories', () => {
  const shown = (more: Answers = {}, list: List = LIST) =>
    rendered(<DirectoryView />, { ...ANSWERS, ...more }, '', { list })

  it('is said to be nothing only where that is known', async () => {
    const busy = () => new Refusal(503, 'busy', 'The database is being started.')
    shown({ readDirectorySearches: busy, readConnections: busy })
    expect(await screen.findAllByText('The database is being started.')).toHaveLength(2)
    expect(screen.queryByText('Nothing yet.')).toBeNull()
    expect(screen.queryByText(/No directory is connected/)).toBeNull()
  })

  it('stands beside what is to come: how many of each are in the list, and what they cost', async () => {
    shown()
    const link = await screen.findByRole('link', { name: /Campsites, United Kingdom/ })
    expect(link.textContent).toContain('32')
    expect(link.textContent).toMatch(/42 businesses told of, €2.52$/)
    expect(screen.getByRole('combobox', { name: 'Trade' })).toBeTruthy()
    expect(screen.queryByRole('combobox', { name: 'Directory' })).toBeNull()
  })

  it.each<[string, Answers, List, RegExp]>([
    ['no directory is connected', { readConnections: [service('alder')] }, LIST, /No directory is connected/],
    [
      'its key is missing',
      { readConnections: [service('hedgerow', { role: 'directory', hasKey: false })] },
      LIST,
      /No directory is connected/,
    ],
    ['a viewer looks', { readMe: VIEWER }, LIST, /only operators fetch from directories/],
    ['the list is archived', {}, listOf({ archivedAt: '2026-11-27T09:00:00Z' }), /This list is archived/],
  ])('is not begun where %s', async (_, more, list, says) => {
    shown(more, list)
    expect(await screen.findByText(says)).toBeTruthy()
    expect(screen.queryByRole('combobox', { name: 'Trade' })).toBeNull()
  })

  it('is asked for from one of several, each with its own trades', async () => {
    const other = service('wayside', { role: 'directory', gives: ['businesses'] })
    const view = shown({ readConnections: [service('hedgerow', { role: 'directory' }), other], lookUpInDirectory: [] })
    await view.user.selectOptions(await screen.findByLabelText('Directory'), 'wayside')
    await view.user.type(screen.getByRole('combobox', { name: 'Trade' }), 'cafe')
    await screen.findByText('The directory knows no “cafe”.')
    expect(view.sent.some(({ name, search }) => name === 'lookUpInDirectory' && search.get('search') === 'cafe')).toBe(
      true,
    )
  })
})

const record = (id: string, more: Partial<DirectoryRecord> = {}): DirectoryRecord => ({
  record: id,
  state: 'taken',
  name: `Camping ${id}`,
  number: '+441865555968',
  email: '',
  site: '',
  address: '1 Quay',
  city: 'Oxford',
  headOffice: '',
  ...more,
})

describe('one search of a directory', () => {
  const shown = (more: Answers = {}) =>
    rendered(
      <DirectorySearchView />,
      {
        ...ANSWERS,
        readDirectoryRecords: ({ search }) => {
          if (search.get('state') === 'closed')
            return { records: [record('c', { state: 'closed', headOffice: 'Heron, Kelso' })], next: null }
          return search.get('after') === '0'
            ? { records: [record('a')], next: 7 }
            : { records: [record('b')], next: null }
        },
        ...more,
      },
      '',
      { list: LIST, path: '/bring/directory/:searchId', end: `/bring/directory/${SEARCH.id}` },
    )

  it('tells what became of every business, and shows those of a kind', async () => {
    const view = shown()
    expect(await screen.findByText('Camping a')).toBeTruthy()
    expect(screen.getByText('1 Quay, Oxford')).toBeTruthy()
    const aside = within(screen.getByRole('complementary', { name: 'What became of them' }))
    expect(aside.getByText('€2.52')).toBeTruthy()
    expect(aside.getByText(/of at most €3.00 · 42 businesses told of/)).toBeTruthy()
    expect(aside.getByRole('button', { name: /^suppressed/ })).toHaveProperty('disabled', true)
    await view.user.click(aside.getByRole('button', { name: /^closed for good/ }))
    expect(await screen.findByText('Camping c')).toBeTruthy()
    expect(screen.getByText('Heron, Kelso')).toBeTruthy()
    expect(aside.getByRole('link', { name: 'Tidy' })).toBeTruthy()
  })

  it('comes a part at a time, forwards and back', async () => {
    const view = shown()
    await view.user.click(await screen.findByRole('button', { name: 'More of them' }))
    expect(await screen.findByText('Camping b')).toBeTruthy()
    expect(screen.queryByRole('button', { name: 'More of them' })).toBeNull()
    await view.user.click(screen.getByRole('button', { name: 'Those before' }))
    expect(await screen.findByText('Camping a')).toBeTruthy()
  })

  it('shows its work while it is under way, and where it failed', async () => {
    shown({
      readJobs: [job({ state: 'failed', problem: 'provider-failed', done: 20 })],
      readDirectorySearch: { ...SEARCH, isWhole: false, batchId: null },
    })
    expect(await screen.findByText(/failed with 0 businesses left/)).toBeTruthy()
    expect(screen.queryByRole('link', { name: 'Tidy' })).toBeNull()
  })
})

describe('what comes from pages', () => {
  const harvest = (more: Partial<Harvest>): Harvest => ({
    id: crypto.randomUUID(),
    listId: LIST.id,
    name: 'Pages',
    follow: 'contact',
    pagesPerSite: 6,
    country: null,
    jobId: null,
    batchId: null,
    madeBy: 'Maren Oldershaw',
    madeAt: '2026-11-28T09:00:00Z',
    sites: 7,
    sitesRead: 5,
    pages: 14,
    pagesRead: 12,
    businesses: 5,
    numbers: 6,
    emails: 1,
    toLookAt: 0,
    ...more,
  })
  const shown = (harvests: readonly Harvest[], me: Me = OPERATOR) =>
    rendered(<PagesView />, { readMe: me, readHarvests: [...harvests] }, '', { list: LIST })

  it('tells of each reading where it stands', async () => {
    shown([
      harvest({ name: 'Looked at', toLookAt: 2 }),
      harvest({ name: 'Taken', batchId: JOB_ID }),
      harvest({ name: 'Read' }),
    ])
    const line = async (name: string) => (await screen.findByRole('link', { name: new RegExp(`^${name}`) })).textContent
    expect(await line('Looked at')).toMatch(/6.*5 of 7 sites read.*2 values to look at/)
    expect(await line('Taken')).toContain('became a batch')
    expect(await line('Read')).toContain('not taken yet')
    expect(screen.getByRole('button', { name: 'Look what that comes to' })).toHaveProperty('disabled', true)
  })

  it('asks for more where there may be more than are shown', async () => {
    const all = Array.from({ length: 60 }, (_, i) => harvest({ name: `Reading ${i}.` }))
    const readHarvests: Answers['readHarvests'] = ({ search }) => all.slice(0, Number(search.get('limit')))
    const { user } = rendered(<PagesView />, { readMe: OPERATOR, readHarvests }, '', { list: LIST })
    await user.click(await screen.findByRole('button', { name: 'Show more' }))
    expect(await screen.findByRole('link', { name: /^Reading 59\./ })).toBeTruthy()
    expect(screen.queryByRole('button', { name: 'Show more' })).toBeNull()
  })

  it('is not begun by a viewer', async () => {
    shown([], VIEWER)
    expect(await screen.findByText(/only operators have pages read/)).toBeTruthy()
    expect(await screen.findByText('None yet.')).toBeTruthy()
  })
})

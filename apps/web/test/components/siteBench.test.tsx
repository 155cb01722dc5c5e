/** @jest-environment <rootDir>/apps/web/test/components/browser.mjs */
import { describe, expect, it } from '@jest/globals'
import { screen, waitFor, within } from '@testing-library/react'
import type { HarvestDetail, HarvestedSite, HarvestSite, Job, SiteFinding, TriedFormat } from '@upper-field/contract'
import { HarvestSoFar } from '../../src/harvest/HarvestSoFar'
import { SiteBench } from '../../src/harvest/SiteBench'
import { SiteList } from '../../src/harvest/SiteList'
import { type MarkedText, TeachFormat } from '../../src/harvest/TeachFormat'
import { jobOf } from './jobs'
import { type Answers, Refusal, rendered } from './rendered'

const HARVEST_ID = '4f1c2a9e-7d1b-4f0e-9a53-0b6a5f7a2c11'
const SITE = 'larch.example'
const HOME = `https://${SITE}/`
const CONTACT = `https://${SITE}/contact`

const finding = (value: string, more: Partial<SiteFinding> = {}): SiteFinding => ({
  kind: 'number',
  value,
  corrected: null,
  state: 'taken',
  decidedBy: null,
  confidence: 0.9,
  how: ['label'],
  raw: value,
  quote: `Telephone ${value}`,
  pages: [CONTACT],
  ...more,
})
const page = (id: number, url: string, more: Partial<HarvestedSite['pages'][number]> = {}) => ({
  id,
  url,
  state: 'read' as const,
  problem: null,
  title: 'Larch',
  language: 'en',
  country: 'GB',
  fetchedAt: '2026-11-28T09:00:00Z',
  blocks: ['Telephone', '+441665555018'],
  leftOut: [],
  ...more,
})
const STATE: HarvestSite = {
  site: SITE,
  state: 'open',
  problem: null,
  delay: 1,
  country: 'GB',
  pages: 2,
  read: 2,
  waiting: 0,
  interrupted: 0,
  numbers: 2,
  emails: 1,
  toLookAt: 0,
}
const READ: HarvestedSite = {
  site: SITE,
  business: { name: 'Larch Camping', address: '1 Quay, Kelso', openingHours: ['Mo-Fr 9-17'] },
  pages: [page(1, HOME), page(2, CONTACT, { leftOut: [{ raw: '4711-22', why: 'order' }] })],
  findings: [
    finding('+441665555018'),
    finding('+447911204481', { state: 'look', confidence: 0.4, pages: [HOME, CONTACT] }),
    finding('hello@larch.example', { kind: 'email', how: ['link'] }),
  ],
}

function bench(
  more: { read?: Partial<HarvestedSite>; state?: Partial<HarvestSite>; mayChange?: boolean; isReading?: boolean } = {},
  answers: Answers = {},
) {
  let next = 0
  const shown = rendered(
    <SiteBench
      harvestId={HARVEST_ID}
      site={SITE}
      state={{ ...STATE, ...more.state }}
      mayChange={more.mayChange ?? true}
      isReading={more.isReading ?? false}
      onMark={() => {}}
      onNext={() => next++}
    />,
    { readHarvestedSite: { ...READ, ...more.read }, decideFinding: {}, readPagesAgain: { pages: 1 }, ...answers },
  )
  const decisions = () => shown.sent.flatMap(({ name, body }) => (name === 'decideFinding' ? [body] : []))
  return { ...shown, decisions, next: () => next }
}
const chosen = () => screen.getByRole('row', { selected: true })

describe('a site on the bench', () => {
  it('is worked through by keyboard: taken, dropped, gone back to and undone, and left for the next', async () => {
    const { user, decisions, next } = bench()
    await screen.findByText('Larch Camping')
    await user.keyboard('{Enter}')
    await waitFor(() => expect(within(chosen()).getByText('2')).toBeTruthy())
    await user.keyboard('x')
    await waitFor(() => expect(within(chosen()).getByText('hello@larch.example')).toBeTruthy())
    await user.keyboard('kku')
    await waitFor(() =>
      expect(decisions()).toEqual([
        { site: SITE, kind: 'number', value: '+441665555018', decision: 'taken', corrected: null },
        { site: SITE, kind: 'number', value: '+447911204481', decision: 'dropped', corrected: null },
        { site: SITE, kind: 'number', value: '+441665555018', decision: null, corrected: null },
      ]),
    )
    await user.keyboard('n')
    expect(next()).toBe(1)
  })

  it('has a value corrected in its place; a number is sent without its gaps', async () => {
    const { user, decisions } = bench()
    await screen.findByText('Larch Camping')
    await user.keyboard('e')
    const field = screen.getByLabelText('The right value')
    await user.clear(field)
    await user.type(field, '+44 1665 (555) 019{Enter}')
    await waitFor(() => expect(decisions()).toMatchObject([{ decision: 'taken', corrected: '+441665555019' }]))
    expect(screen.queryByLabelText('The right value')).toBeNull()
  })

  it('keeps the dashes of an address that is corrected', async () => {
    const { user, decisions } = bench()
    await screen.findByText('Larch Camping')
    await user.keyboard('jje')
    const field = screen.getByLabelText('The right value')
    await user.clear(field)
    await user.type(field, ' anna-maria@larch-camping.example {Enter}')
    await waitFor(() =>
      expect(decisions()).toMatchObject([{ kind: 'email', corrected: 'anna-maria@larch-camping.example' }]),
    )
  })

  it('keeps what is being corrected where it is refused, and says why', async () => {
    const { user } = bench({}, { decideFinding: () => new Refusal(422, 'no-number', 'This is no number.') })
    await screen.findByText('Larch Camping')
    await user.keyboard('e')
    await user.type(screen.getByLabelText('The right value'), 'x{Enter}')
    expect(await screen.findByText('This is no number.')).toBeTruthy()
    expect(screen.getByLabelText('The right value')).toBeTruthy()
    await user.keyboard('{Escape}')
    expect(screen.queryByLabelText('The right value')).toBeNull()
  })

  it('decides nothing for whoever may only look', async () => {
    const { user, decisions } = bench({ mayChange: false })
    await screen.findByText('Larch Camping')
    await user.keyboard('{Enter}xe')
    expect(decisions()).toEqual([])
    expect(screen.queryByLabelText('The right value')).toBeNull()
    expect(screen.queryByRole('button', { name: /^Take/ })).toBeNull()
  })

  it('shows the page a value stands on, with what was left out there, and any other that is chosen', async () => {
    const { user } = bench()
    const pages = within(await screen.findByRole('navigation', { name: 'Pages of the site' }))
    expect(pages.getByRole('button', { name: '/contact' }).getAttribute('aria-pressed')).toBe('true')
    expect(screen.getByText('Left out on this page: 1 order number.')).toBeTruthy()
    await user.click(pages.getByRole('button', { name: '/' }))
    expect(screen.queryByText(/^Left out on this page/)).toBeNull()
  })

  it.each<[string, Parameters<typeof bench>[0], RegExp]>([
    [
      'forbidden',
      { state: { state: 'forbidden' }, read: { pages: [], findings: [] } },
      /Nothing of this site was read: robots.txt forbids it/,
    ],
    [
      'not reached',
      { state: { state: 'unreachable', problem: 'no-such-name' }, read: { pages: [], findings: [] } },
      /the name does not resolve/,
    ],
    ['waiting', { read: { pages: [page(1, HOME, { state: 'waiting' })], findings: [] } }, /waits for its turn/],
    [
      'too large',
      { read: { pages: [page(1, HOME, { state: 'failed', problem: 'too-large' })], findings: [] } },
      /Not read: larger than a page may be/,
    ],
    ['empty', { read: { findings: [] } }, /Nothing was found here/],
  ])('that is %s says so', async (_, more, says) => {
    bench(more)
    expect(await screen.findByText(says)).toBeTruthy()
  })

  it('has what failed read again, once nothing is being read any more', async () => {
    const failed = { pages: [page(1, HOME), page(2, CONTACT, { state: 'failed', problem: 'too-slow' })] }
    const busy = bench({ read: failed, isReading: true })
    await screen.findByText('Larch Camping')
    expect(screen.queryByRole('button', { name: 'Read again what failed here' })).toBeNull()
    busy.unmount()
    const { user, sent } = bench({ read: failed })
    await user.click(await screen.findByRole('button', { name: 'Read again what failed here' }))
    await waitFor(() => expect(sent.find(({ name }) => name === 'readPagesAgain')?.body).toEqual({ site: SITE }))
  })
})

const HARVEST: HarvestDetail = {
  id: HARVEST_ID,
  listId: '5f1c2a9e-7d1b-4f0e-9a53-0b6a5f7a2c11',
  name: 'Pages',
  follow: 'contact',
  pagesPerSite: 6,
  country: null,
  jobId: jobOf().id,
  batchId: null,
  madeBy: 'Maren Oldershaw',
  madeAt: '2026-11-28T09:00:00Z',
  sites: 4,
  sitesRead: 1,
  pages: 12,
  pagesRead: 3,
  businesses: 1,
  numbers: 2,
  emails: 1,
  toLookAt: 1,
  ofSites: [STATE, { ...STATE, site: 'heron.example', state: 'waiting', numbers: 0 }],
}
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

const TRIED: TriedFormat = {
  format: {
    name: 'of Germany, after “nummer”',
    takes: true,
    country: 'DE',
    startsWithPlus: false,
    groups: [
      { least: 5, most: 5, behind: ' ' },
      { least: 3, most: 3, behind: '' },
    ],
    after: ['nummer'],
    notAfter: [],
  },
  finds: 3,
  loses: 0,
  lookAlikes: 1,
  pages: 12,
  found: [{ url: HOME, value: '+495246555044', raw: '05246 555', quote: 'Nummer 05246 555' }],
  lost: [],
  suspects: [{ url: HOME, value: '+495246555045', raw: '05246 556', quote: 'Rechnung 05246 556', word: 'Rechnung' }],
}

describe('a format taught by example', () => {
  const marked: MarkedText = { block: 'Nummer 05246 555', raw: '05246 555', takes: true, country: null }
  const taught = (answers: Answers = {}, given: MarkedText | null = marked) => {
    let done = 0
    const shown = rendered(
      <TeachFormat harvestId={HARVEST_ID} marked={given} mayChange={true} onDone={() => done++} />,
      {
        learnFormat: TRIED,
        tryFormat: { ...TRIED, lookAlikes: 0, suspects: [] },
        keepFormat: {},
        readFormats: [],
        ...answers,
      },
    )
    return { ...shown, done: () => done }
  }

  it('is told in words, with what it would find and what looks alike, before it is kept', async () => {
    const { user, sent, done } = taught()
    expect(await screen.findByText(/Numbers of Germany: 5 digits, a space, 3 digits; behind “nummer”/)).toBeTruthy()
    await user.click(screen.getByRole('button', { name: 'Not behind “Rechnung”' }))
    await waitFor(() => expect(screen.queryByRole('button', { name: /^Not behind/ })).toBeNull())
    expect(sent.find(({ name }) => name === 'tryFormat')?.body).toMatchObject({ notAfter: ['rechnung'] })
    await user.click(screen.getByRole('button', { name: 'Keep the format · 3 more numbers' }))
    await waitFor(() => expect(done()).toBe(1))
  })

  it('needs a name, and stays where the server says no', async () => {
    const { user, done } = taught({ keepFormat: () => new Refusal(409, 'name-taken', 'That name is taken.') })
    const keep = await screen.findByRole('button', { name: /^Keep the format/ })
    const name = screen.getByLabelText('Name')
    await user.clear(name)
    expect(keep).toHaveProperty('disabled', true)
    await user.type(name, 'Ours')
    await user.click(keep)
    expect(await screen.findByText('That name is taken.')).toBeTruthy()
    expect(done()).toBe(0)
  })

  it('is typed where nothing was marked: the number in the words is what is meant', async () => {
    const { user, sent } = taught({}, null)
    await user.click(screen.getByText('Or type an example'))
    const look = screen.getByRole('button', { name: 'Look what it would find' })
    expect(look).toHaveProperty('disabled', true)
    await user.type(screen.getByLabelText('As it stands, with the words before it'), 'unter 05246 555 / 44')
    await user.click(look)
    await screen.findByRole('button', { name: /^Keep the format/ })
    expect(sent.find(({ name }) => name === 'learnFormat')?.body).toMatchObject({
      block: 'unter 05246 555 / 44',
      raw: '05246 555 / 44',
    })
  })

  it('is forgotten by its name', async () => {
    const { user, sent } = taught(
      { readFormats: [{ format: TRIED.format, madeBy: 'Tom Kestle', madeAt: '2026-11-28T09:00:00Z' }], dropFormat: {} },
      null,
    )
    await user.click(await screen.findByRole('button', { name: /^Forget the format of Germany/ }))
    expect(sent.some(({ name }) => name === 'dropFormat')).toBe(true)
  })
})

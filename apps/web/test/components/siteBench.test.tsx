/** @jest-environment <rootDir>/apps/web/test/components/browser.mjs */
import { describe, expect, it } from '@jest/globals'
import { screen, waitFor, within } from '@testing-library/react'
import type { HarvestedSite, HarvestSite, SiteFinding } from '@upper-field/contract'
import { SiteBench } from '../../src/harvest/SiteBench'
import { HARVEST_ID, SITE, STATE } from './harvests'
import { type Answers, Refusal, rendered } from './rendered'

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

  /** Types another value for the one that these keys lead to. */
  const corrected = async (keys: string, typed: string) => {
    const { user, decisions } = bench()
    await screen.findByText('Larch Camping')
    await user.keyboard(keys)
    const field = screen.getByLabelText('The right value')
    await user.clear(field)
    await user.type(field, typed)
    return decisions
  }

  it('has a value corrected in its place; a number is sent without its gaps', async () => {
    const decisions = await corrected('e', '+44 1665 (555) 019{Enter}')
    await waitFor(() => expect(decisions()).toMatchObject([{ decision: 'taken', corrected: '+441665555019' }]))
    expect(screen.queryByLabelText('The right value')).toBeNull()
  })

  it('corrects the value whose field it is, also where another is chosen meanwhile', async () => {
    const { user, decisions } = bench()
    await screen.findByText('Larch Camping')
    await user.keyboard('e')
    await user.click(screen.getByRole('button', { name: 'hello@larch.example' }))
    await user.type(screen.getByLabelText('The right value'), '{Backspace}9{Enter}')
    await waitFor(() => expect(decisions()).toMatchObject([{ value: '+441665555018', corrected: '+441665555019' }]))
  })

  it('stays at the value that is corrected while others are found before it', async () => {
    let findings = READ.findings
    const { user, decisions } = bench(
      {},
      {
        readHarvestedSite: () => ({ ...READ, findings }),
        decideFinding: () => new Refusal(422, 'no-address', 'This is no e-mail address.'),
        readPagesAgain: { pages: 0 },
      },
    )
    await screen.findByText('Larch Camping')
    await user.keyboard('jje')
    await user.type(screen.getByLabelText('The right value'), '2')
    findings = [finding('+441665555000'), ...READ.findings]
    await user.keyboard('{Enter}')
    await screen.findByText('+44 1665 555000')
    const field = screen.getByLabelText('The right value')
    expect(field).toHaveProperty('value', 'hello@larch.example2')
    await user.type(field, '{Enter}')
    await waitFor(() => expect(decisions()).toHaveLength(2))
    expect(decisions()).toEqual(Array.from({ length: 2 }, () => expect.objectContaining({ kind: 'email' })))
  })

  it('keeps the dashes of an address that is corrected', async () => {
    const decisions = await corrected('jje', ' anna-maria@larch-camping.example {Enter}')
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
    ['larger than what is shown', { state: { pages: 61 } }, /59 more pages, not shown/],
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

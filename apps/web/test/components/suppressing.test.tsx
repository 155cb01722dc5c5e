/** @jest-environment <rootDir>/apps/web/test/components/browser.mjs */
import { describe, expect, it } from '@jest/globals'
import { fireEvent, screen, within } from '@testing-library/react'
import type { AnswerAges, SuppressionAdded, SuppressionEntry, SuppressionList } from '@upper-field/contract'
import { DoNotCallTable } from '../../src/check/DoNotCallTable'
import { AddEntries } from '../../src/suppression/AddEntries'
import { Entries } from '../../src/suppression/Entries'
import { Refusal, rendered } from './rendered'
import { service } from './services'

const LIST: SuppressionList = {
  id: '8b1f0f0e-3c1e-4d55-9f0e-5b0a3f1f2a10',
  name: 'Opt-outs',
  kind: 'opt-outs',
  scope: 'all',
  entries: 0,
  createdAt: '2026-11-01T08:00:00.000Z',
}
const ADDED: SuppressionAdded = { added: 1, known: 0, unread: [], unreadTotal: 0, marked: 0, waiting: 0 }

describe('adding people a line each', () => {
  const box = () => screen.getByRole('textbox', { name: /a line each/ }) as HTMLTextAreaElement

  it('counts the lines that hold something, and clears the box once they are read', async () => {
    const { user, sent } = rendered(<AddEntries list={LIST} />, { addSuppressionEntries: { ...ADDED, added: 2 } })
    expect((screen.getByRole('button', { name: 'Add' }) as HTMLButtonElement).disabled).toBe(true)
    await user.type(box(), '07911 204481\n\n  \ncauseway.example')
    await user.click(screen.getByRole('button', { name: 'Add 2 lines' }))
    expect(await screen.findByText(/^2 entries added/)).toBeTruthy()
    expect(box().value).toBe('')
    expect(sent[0]?.body).toMatchObject({
      text: '07911 204481\n\n  \ncauseway.example',
      country: 'GB',
      asHashes: false,
    })
  })

  it('keeps what could not be read in the box, and says that it suppresses nobody', async () => {
    const { user } = rendered(<AddEntries list={LIST} />, {
      addSuppressionEntries: { ...ADDED, known: 3, unread: [{ line: 2, text: 'no idea' }], unreadTotal: 1, waiting: 1 },
    })
    await user.type(box(), '07911 204481\nno idea')
    await user.click(screen.getByRole('button', { name: 'Add 2 lines' }))
    expect(await screen.findByText(/1 line holds no number.*suppresses nobody/)).toBeTruthy()
    expect(screen.getByText(/1 entry added, 3 on the list already/)).toBeTruthy()
    expect(
      screen.getByText(/1 contact is being marked, in lists that are worked on as soon as that has ended/),
    ).toBeTruthy()
    expect(box().value).toBe('no idea')
  })

  it('lets an entry count for the whole of the day that is chosen as its last', async () => {
    const { user, sent } = rendered(<AddEntries list={LIST} />, { addSuppressionEntries: ADDED })
    fireEvent.change(screen.getByLabelText(/^Until/), { target: { value: '2027-02-28' } })
    await user.type(box(), '07911 204481')
    await user.click(screen.getByRole('button', { name: 'Add 1 line' }))
    expect(await screen.findByText(/^1 entry added/)).toBeTruthy()
    expect(sent[0]?.body).toMatchObject({ expiresAt: '2027-02-28T23:59:59.999Z' })
    expect((screen.getByLabelText(/^Until/) as HTMLInputElement).value).toBe('2027-02-28')
  })

  it('keeps a line as it was typed, however little of it is told', async () => {
    const long = `somebody whose number nobody knows, ${'and '.repeat(20)}who said no`
    const { user } = rendered(<AddEntries list={LIST} />, {
      addSuppressionEntries: { ...ADDED, unread: [{ line: 3, text: long.slice(0, 80) }], unreadTotal: 1 },
    })
    await user.click(box())
    await user.paste(`07911 204481\n\n${long}`)
    await user.click(screen.getByRole('button', { name: 'Add 2 lines' }))
    expect(await screen.findByText(/1 line holds no number/)).toBeTruthy()
    expect(box().value).toBe(long)
  })

  it('loses nothing of what was typed where the server says no', async () => {
    const { user } = rendered(<AddEntries list={LIST} />, {
      addSuppressionEntries: () => new Refusal(413, 'too-long', 'At most 5,000 lines at once.'),
    })
    await user.type(box(), '07911 204481')
    await user.click(screen.getByRole('button', { name: 'Add 1 line' }))
    expect(await screen.findByText('At most 5,000 lines at once.')).toBeTruthy()
    expect(box().value).toBe('07911 204481')
  })
})

describe('what do-not-call registers have said', () => {
  const ages = (country: string, more: Partial<AnswerAges> = {}): AnswerAges => ({
    country,
    subjects: 20,
    byAge: { week: 12, month: 0, quarter: 0, older: 3, never: 5 },
    stale: 3,
    listed: 4,
    ...more,
  })
  const table = (data: AnswerAges[], at = '') =>
    rendered(
      <DoNotCallTable />,
      {
        readAnswerAges: data,
        readConnections: [service('registers', { role: 'do-not-call', countries: ['GB', 'DE'] })],
      },
      at,
    )
  const rowOf = async (country: string) => within((await screen.findByText(country)).closest('tr') as HTMLElement)

  it('shows what is in time, too old and never asked', async () => {
    table([ages('GB')])
    const cells = (await rowOf('United Kingdom')).getAllByRole('cell').map(({ textContent }) => textContent)
    expect(cells).toEqual(['20', '4', '12', '3', '5'])
  })

  it('is asked for the countries that are ticked, and opens whoever is listed', async () => {
    const { user, address } = table([ages('GB'), ages('DE')], 'q=country:DE kelso')
    const box = (await rowOf('Germany')).getByRole('checkbox') as HTMLInputElement
    expect(box.checked).toBe(true)
    await user.click((await rowOf('United Kingdom')).getByRole('checkbox'))
    expect(address()).toBe('/lists/l1?q=country:DE,GB kelso')
    await user.click((await rowOf('Germany')).getByRole('button', { name: 'Germany, not to be called: 4' }))
    expect(address()).toMatch(/country:DE .*suppressed:calls.*kelso/)
  })

  it('never says that nobody has a number before it knows', async () => {
    rendered(<DoNotCallTable />, {
      readAnswerAges: () => new Refusal(503, 'busy', 'The database is being started.'),
      readConnections: [],
    })
    expect(screen.getByRole('status').textContent).toMatch(/^Reading/)
    expect((await screen.findByRole('alert')).textContent).toMatch(/^The database is being started\./)
    expect(screen.queryByText(/Nobody here/)).toBeNull()
  })

  it('counts numbers of countries without a register, and never calls them free', async () => {
    table([ages('GB'), ages('FR', { listed: 0, subjects: 7 }), ages('SE', { listed: 0, subjects: 2 })])
    expect(await screen.findByText(/countries of 9 more numbers: whether those people want calls is/)).toBeTruthy()
    expect(screen.queryByText('France')).toBeNull()
  })
})

describe('taking an entry off', () => {
  const ENTRY: SuppressionEntry = {
    id: '5c1f0f0e-3c1e-4d55-9f0e-5b0a3f1f2a11',
    kind: 'number',
    key: '+447911204481',
    isMasked: false,
    reason: 'asked',
    source: null,
    addedBy: 'Maren Oldershaw',
    addedAt: '2026-11-01T08:00:00.000Z',
    expiresAt: null,
  }

  it('is done only by who has said so twice', async () => {
    const { user, sent } = rendered(<Entries entries={[ENTRY]} mayChange />, { dropSuppressionEntry: {} })
    await user.click(screen.getByRole('button', { name: 'Take off' }))
    const asked = within(screen.getByRole('dialog'))
    expect(asked.getByText(/can be texted, called and sent again/)).toBeTruthy()
    expect(asked.queryByText(/nobody can add it again/)).toBeNull()
    await user.keyboard('{Escape}')
    expect(sent).toEqual([])
    await user.click(screen.getByRole('button', { name: 'Take off' }))
    await user.click(screen.getByRole('button', { name: 'Take it off' }))
    expect(sent.map(({ name }) => name)).toEqual(['dropSuppressionEntry'])
    expect(screen.queryByRole('dialog')).toBeNull()
  })

  it('says of a hash that it cannot be added again', async () => {
    const { user } = rendered(<Entries entries={[{ ...ENTRY, kind: 'hash', key: null }]} mayChange />, {})
    await user.click(screen.getByRole('button', { name: 'Take off' }))
    expect(screen.getByText(/nobody can add it again from here/)).toBeTruthy()
  })
})

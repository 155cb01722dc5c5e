/** @jest-environment <rootDir>/apps/web/test/components/browser.mjs */
import { describe, expect, it } from '@jest/globals'
import { screen, waitFor } from '@testing-library/react'
import { ContactGrid } from '../../src/shell/ContactGrid'
import { contactOf } from './contacts'
import { Refusal, rendered, type Sent } from './rendered'

const COLUMNS = [{ title: 'Name', width: '1fr', cell: ({ fullName }: { fullName: string }) => fullName }]
const AWAY = 'The database is being started.'
const PAGE = { contacts: [contactOf()], next: 'more', total: 312, isCapped: false }

/** A list of two pages, of which some calls are refused. */
const shown = (isRefused: (sent: Sent, at: number) => boolean) => {
  let at = 0
  const answer = (sent: Sent) => {
    if (isRefused(sent, at++)) return new Refusal(503, 'database-away', AWAY)
    return sent.search.has('cursor') ? { ...PAGE, contacts: [contactOf({ id: 72 })], next: null } : PAGE
  }
  return rendered(<ContactGrid columns={COLUMNS} emptyText="Everybody has a mobile." />, { readContacts: answer })
}

describe('the contacts of a list', () => {
  it('are not said to be none where they could not be read, and can be read again', async () => {
    const { user } = shown((_, at) => at === 0)
    expect((await screen.findByRole('alert')).textContent).toContain(AWAY)
    expect(screen.queryByText(/0 contacts|Everybody has a mobile/)).toBeNull()
    await user.click(screen.getByRole('button', { name: 'Read it again' }))
    expect((await screen.findByRole('status')).textContent).toContain('312 contacts')
  })

  it('stay in sight where their next page is refused, which is not asked for over and over', async () => {
    const { user, sent } = shown(({ search }, at) => search.has('cursor') && at < 2)
    expect((await screen.findByRole('alert')).textContent).toContain(AWAY)
    // Every key draws the grid anew.
    for (const key of ['j', 'k', 'j']) await user.keyboard(key)
    expect(sent).toHaveLength(2)
    expect(screen.getByRole('status').textContent).toContain('312 contacts')
    expect(screen.getByRole('table', { name: 'Contacts' }).getAttribute('aria-rowcount')).toBe('312')
    await user.click(screen.getByRole('button', { name: 'Read it again' }))
    await waitFor(() => expect(sent.filter(({ search }) => search.has('cursor'))).toHaveLength(2))
    expect(screen.queryByRole('alert')).toBeNull()
  })
})

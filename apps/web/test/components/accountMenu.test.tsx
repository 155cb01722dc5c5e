/** @jest-environment <rootDir>/apps/web/test/components/browser.mjs */
import { describe, expect, it } from '@jest/globals'
import { screen, waitFor } from '@testing-library/react'
import { AccountMenu } from '../../src/shell/AccountMenu'
import { OPERATOR, rendered } from './rendered'

const named = (items: readonly HTMLElement[]) => items.map(({ textContent }) => textContent)

/** The open menu of somebody, with a server that can be asked to end the session or not. */
async function opened(role: 'owner' | 'operator' | 'viewer', signOut: () => Promise<Response>) {
  const view = rendered(<AccountMenu />, { readMe: { ...OPERATOR, role } })
  const others = globalThis.fetch
  globalThis.fetch = ((url: string, how?: RequestInit) =>
    String(url).endsWith('/sign-out') ? signOut() : others(url, how)) as typeof fetch
  const account = await screen.findByRole('button', { name: 'Account of Maren Oldershaw' })
  account.focus()
  await view.user.keyboard('{Enter}')
  await screen.findByRole('menu')
  return view
}

const ended = async () => new Response('{}')

describe('the menu of whoever is signed in', () => {
  it.each([
    ['owner', ['People and sessions', 'Other programs', 'Sign out']],
    ['operator', ['Your account', 'Other programs', 'Sign out']],
    ['viewer', ['Your account', 'Sign out']],
  ] as const)('leads an %s to what is theirs', async (role, items) => {
    await opened(role, ended)
    expect(named(screen.getAllByRole('menuitem'))).toEqual(items)
  })

  it('says that somebody is signed in still where the server could not be asked', async () => {
    const { user, address } = await opened('operator', async () => {
      throw new TypeError('Failed to fetch')
    })
    await user.click(screen.getByRole('menuitem', { name: 'Sign out' }))
    expect((await screen.findByRole('alert')).textContent).toContain('You are still signed in')
    expect(address()).toBe('/lists/l1')
  })

  it('leaves for the sign-in once the session is ended', async () => {
    const { user, address } = await opened('operator', ended)
    await user.click(screen.getByRole('menuitem', { name: 'Sign out' }))
    await waitFor(() => expect(address()).toBe('/sign-in'))
    expect(screen.queryByRole('alert')).toBeNull()
  })
})

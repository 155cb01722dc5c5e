/** @jest-environment <rootDir>/apps/web/test/components/browser.mjs */
import { expect, it } from '@jest/globals'
import { fireEvent, screen, waitFor, within } from '@testing-library/react'
import { SearchBox } from '../../src/shell/SearchBox'
import { counted } from './piles'
import { rendered } from './rendered'

const shown = (at = '') => {
  const box = rendered(<SearchBox />, { readPiles: counted({ country: { GB: 4, GE: 1, DE: 2 } }) }, at)
  return { ...box, field: screen.getByRole('combobox') as HTMLInputElement }
}
const ways = () => within(screen.getByRole('listbox', { hidden: true })).queryAllByRole('option', { hidden: true })

/** Without waiting for anything: however slow the machine is, no pause has gone by. */
const typeAtOnce = (field: HTMLInputElement, value: string) => fireEvent.change(field, { target: { value } })

it('filters as it is typed, once for a word and not for each letter', async () => {
  const { field, address } = shown()
  const places = new Set<string>()
  for (const text of ['k', 'ke', 'kel', 'kels', 'kelso']) {
    typeAtOnce(field, text)
    places.add(address())
  }
  expect([...places]).toEqual(['/lists/l1'])
  await waitFor(() => {
    places.add(address())
    expect(address()).toBe('/lists/l1?q=kelso')
  })
  expect(places.size).toBe(2)
})

it('filters at once with Enter', async () => {
  const { user, field, address } = shown()
  await user.type(field, 'kelso{Enter}')
  expect(address()).toBe('/lists/l1?q=kelso')
})

it('completes fields, and the values that the list has, by the arrow keys', async () => {
  const { user, field, address } = shown()
  await user.type(field, 'countr')
  expect(ways().map(({ textContent }) => textContent)).toContain('country:')
  await user.keyboard('{ArrowDown}{Enter}')
  expect(field.value).toBe('country:')
  await user.type(field, 'G')
  await waitFor(() => expect(ways().map(({ textContent }) => textContent)).toEqual(['GB', 'GE']))
  await user.keyboard('{ArrowUp}')
  expect(ways().map((way) => way.getAttribute('aria-selected'))).toEqual(['false', 'true'])
  await user.keyboard('{Enter}{Enter}')
  expect(address().trim()).toBe('/lists/l1?q=country:GE')
})

it('lets go of what it offers with Escape, and keeps what was typed', async () => {
  const { user, field } = shown()
  await user.type(field, 'countr')
  await user.keyboard('{Escape}')
  expect(ways()).toEqual([])
  expect([field.value, document.activeElement]).toEqual(['countr', field])
})

it('says what it could not read, and puts it right when asked to', async () => {
  const { user, address } = shown('q=cty:kelso line:mobile')
  await user.click(await screen.findByRole('button', { name: 'Did you mean “city”?' }))
  expect(address()).toBe('/lists/l1?q=city:kelso line:mobile')
  expect(screen.queryByRole('status')).toBeNull()
})

it('does not offer to put right what is typed on, which would take the rest away', async () => {
  const { user, field, address } = shown('q=cty:kel')
  const offered = () => screen.queryByRole('button', { name: 'Did you mean “city”?' })
  await waitFor(() => expect(offered()).not.toBeNull())
  typeAtOnce(field, 'cty:kelso')
  expect(offered()).toBeNull()
  await user.click(await screen.findByRole('button', { name: 'Did you mean “city”?' }))
  expect(address()).toBe('/lists/l1?q=city:kelso')
})

it('says how filters are written', async () => {
  const { user } = shown()
  await user.click(screen.getByRole('button', { name: 'How filters are written' }))
  expect(await screen.findByRole('dialog')).toBeTruthy()
})

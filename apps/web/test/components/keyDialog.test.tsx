/** @jest-environment <rootDir>/apps/web/test/components/browser.mjs */
import { expect, it } from '@jest/globals'
import { screen } from '@testing-library/react'
import type { DestinationDocument } from '@upper-field/contract'
import { ConnectionDialog } from '../../src/connections/ConnectionDialog'
import { KeyDialog } from '../../src/destinations/KeyDialog'
import { Refusal, rendered } from './rendered'
import { service } from './services'

const LANTERN = {
  id: 'lantern',
  name: 'Lantern',
  network: { address: 'https://api.lantern.example' },
} as unknown as DestinationDocument
const KEPT = { destination: 'lantern', address: 'https://elsewhere.example', hasKey: true }
const address = () => screen.getByLabelText('Address') as HTMLInputElement

it('begins with the address of the declaration, and keeps the key with it', async () => {
  let closed = 0
  const { user, sent } = rendered(<KeyDialog destination={LANTERN} kept={undefined} onClose={() => closed++} />, {
    keepDestinationKey: KEPT,
  })
  expect(address().value).toBe('https://api.lantern.example')
  expect(screen.queryByRole('button', { name: 'Forget the key' })).toBeNull()
  await user.click(screen.getByRole('button', { name: 'Keep' }))
  expect(sent).toEqual([])
  await user.type(screen.getByLabelText('Key'), 'secret')
  await user.click(screen.getByRole('button', { name: 'Keep' }))
  expect(sent[0]?.body).toEqual({ address: 'https://api.lantern.example', key: 'secret' })
  expect(closed).toBe(1)
})

it('begins with the address that is kept, says why it was refused, and can be forgotten', async () => {
  let closed = 0
  const { user, sent } = rendered(<KeyDialog destination={LANTERN} kept={KEPT} onClose={() => closed++} />, {
    keepDestinationKey: () => new Refusal(422, 'address-refused', 'This address lies inside a private network.'),
    removeDestinationKey: {},
  })
  expect(address().value).toBe('https://elsewhere.example')
  await user.type(screen.getByLabelText('Key'), 'x')
  await user.click(screen.getByRole('button', { name: 'Keep' }))
  expect((await screen.findByRole('alert')).textContent).toContain('private network')
  expect(closed).toBe(0)
  await user.click(screen.getByRole('button', { name: 'Forget the key' }))
  expect(sent.map(({ name }) => name)).toEqual(['keepDestinationKey', 'removeDestinationKey'])
  expect(closed).toBe(1)
})

it('of a service sends no key where the one that is set stays', async () => {
  const { user, sent } = rendered(<ConnectionDialog connection={service('tansy')} onClose={() => {}} />, {
    changeConnection: service('tansy'),
  })
  await user.clear(address())
  await user.type(address(), 'https://other.example')
  await user.click(screen.getByRole('button', { name: 'Keep' }))
  expect(sent[0]?.body).toEqual({ baseUrl: 'https://other.example' })
})

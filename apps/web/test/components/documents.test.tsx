/** @jest-environment <rootDir>/apps/web/test/components/browser.mjs */
import { describe, expect, it } from '@jest/globals'
import { fireEvent, screen, waitFor, within } from '@testing-library/react'
import type { ConnectorDocument, DestinationDocument } from '@upper-field/contract'
import { ConnectorView } from '../../src/connections/ConnectorView'
import { blank, readDraft } from '../../src/connections/draft'
import { DestinationView } from '../../src/destinations/DestinationView'
import { blankDestination, readDestination } from '../../src/destinations/destinationDraft'
import type { Draft } from '../../src/documents/draft'
import { type Answers, OPERATOR, rendered, type Sent } from './rendered'
import { service } from './services'

const OWNER = { ...OPERATOR, role: 'owner' } as const

function whole<D>(draft: Draft<D>): D {
  if (draft.status !== 'whole') throw new Error(JSON.stringify(draft.problems))
  return draft.document
}
const LANTERN: ConnectorDocument = { ...whole(readDraft(blank())), id: 'lantern', name: 'Lantern' }
const NORTHPIN: DestinationDocument = {
  ...whole(readDestination(blankDestination())),
  id: 'northpin',
  name: 'Northpin',
}

const lantern = service('lantern', { baseUrl: LANTERN.address, changedAt: '2026-11-20T08:00:00.000Z' })
const connector = (provider: string, more: Answers = {}) =>
  rendered(<ConnectorView />, { readMe: OWNER, readConnections: [lantern], readConnector: LANTERN, ...more }, '', {
    path: '/:provider',
    end: `/${provider}`,
  })
const destination = (id: string, more: Answers = {}) =>
  rendered(
    <DestinationView />,
    { readMe: OWNER, readDestinations: [NORTHPIN], readShippedDestinations: [], readDestinationKeys: [], ...more },
    '',
    { path: '/:destination', end: `/${id}` },
  )

const editor = async (label: string) => (await screen.findByLabelText(label)) as HTMLTextAreaElement
const write = (into: HTMLTextAreaElement, text: string) => fireEvent.change(into, { target: { value: text } })
const button = (name: string) => screen.getByRole('button', { name }) as HTMLButtonElement
const did = (sent: readonly Sent[], name: string) => sent.filter((one) => one.name === name)

describe.each([
  { what: 'a service', open: connector, label: 'Connector', id: 'lantern', add: 'Add this service' },
  { what: 'a destination', open: destination, label: 'Destination', id: 'northpin', add: 'Add this destination' },
])('$what that is declared', ({ open, label, id, add }) => {
  it('is kept for what it says, not for how it is laid out', async () => {
    open(id)
    const text = await editor(label)
    await screen.findByRole('button', { name: 'Keep the change' })
    expect(button('Keep the change').disabled).toBe(true)
    write(text, JSON.stringify(JSON.parse(text.value)))
    expect(button('Keep the change').disabled).toBe(true)
    write(text, text.value.replace('"about":""', '"about":"Otherwise."'))
    expect(button('Keep the change').disabled).toBe(false)
    write(text, '{')
    expect(button('Keep the change').disabled).toBe(true)
    expect(screen.getByText(/This is no JSON yet/)).toBeTruthy()
  })

  it('takes the place of no other where it is new', async () => {
    const { sent } = open('new')
    const text = await editor(label)
    const free = text.value
    write(text, free.replace(/"id": "[^"]+"/, `"id": "${id}"`))
    expect(await screen.findByText(new RegExp(`^“${id}” is the id of \\w+ already`))).toBeTruthy()
    expect(button(add).disabled).toBe(true)
    write(text, free)
    expect(button(add).disabled).toBe(false)
    expect(sent.filter(({ name }) => name.startsWith('keep'))).toEqual([])
  })

  it('starts as a copy under an id of its own', async () => {
    const { user } = open('new')
    const text = await editor(label)
    await screen.findByRole('option', { name: /^a copy of/ })
    await user.selectOptions(screen.getByLabelText('Start from'), id)
    await screen.findByDisplayValue(new RegExp(`"id": "${id}-2"`))
    expect(JSON.parse(text.value).id).toBe(`${id}-2`)
    expect(button(add).disabled).toBe(false)
  })
})

it('a service is forgotten by who has said so twice, and its room is left', async () => {
  const { user, sent, address } = connector('lantern', { removeConnection: {} })
  await user.click(await screen.findByRole('button', { name: 'Forget it and its key …' }))
  const asked = within(screen.getByRole('dialog', { name: 'Forget it and its key?' }))
  expect(asked.getByText(/are gone for good/)).toBeTruthy()
  expect(did(sent, 'removeConnection')).toEqual([])
  await user.click(asked.getByRole('button', { name: 'Forget it and its key' }))
  expect(did(sent, 'removeConnection')).toHaveLength(1)
  await waitFor(() => expect(address()).toBe('/providers'))
})

it('a service whose key was given for another address says where it is asked', async () => {
  connector('lantern', { readConnections: [{ ...lantern, baseUrl: 'https://elsewhere.example' }] })
  expect(
    await screen.findByText(/It is asked at https:\/\/elsewhere\.example, which was given with its key\./),
  ).toBeTruthy()
})

it('a change of a destination is told to be kept once it is', async () => {
  let kept = NORTHPIN
  const { user, sent } = destination('northpin', {
    readDestinations: () => [kept],
    keepDestination: ({ body }) => {
      kept = body as DestinationDocument
      return kept
    },
  })
  const text = await editor('Destination')
  write(text, text.value.replace('"about": ""', '"about":    "Otherwise."'))
  await user.click(button('Keep the change'))
  expect(await screen.findByText('Kept.')).toBeTruthy()
  expect(did(sent, 'keepDestination')[0]?.body).toMatchObject({ id: 'northpin', about: 'Otherwise.' })
})

it('only owners change a document', async () => {
  connector('lantern', { readMe: OPERATOR })
  expect((await editor('Connector')).readOnly).toBe(true)
  expect(screen.queryByRole('button')).toBeNull()
})

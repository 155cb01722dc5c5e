/** @jest-environment <rootDir>/apps/web/test/components/browser.mjs */
import { expect, it } from '@jest/globals'
import { screen, waitFor, within } from '@testing-library/react'
import type { KeptLayout } from '@upper-field/contract'
import { PeopleFile, usualLayout } from '../../src/send/PeopleFile'
import { batchOf } from './batches'
import { Refusal, rendered } from './rendered'

const PHONES: KeptLayout = { name: 'Phones', layout: { ...usualLayout(), delimiter: ';' } }
const made = () => new Refusal(409, 'list-busy', 'The list is being tidied.')
const shown = () =>
  rendered(<PeopleFile isMain isOff={false} />, { readFileLayouts: [PHONES], makeEdition: made }, 'q=city:kelso')
const write = () => screen.getByRole('button', { name: 'Write a file for people' })

it('is of those the filter means, in the usual layout unless another is chosen', async () => {
  const { user, sent } = shown()
  await screen.findByLabelText('Layout of a file for people')
  await user.click(write())
  await user.selectOptions(screen.getByLabelText('Layout of a file for people'), 'Phones')
  await waitFor(() => expect((write() as HTMLButtonElement).disabled).toBe(false))
  await user.click(write())
  const bodies = sent.flatMap(({ name, body }) => (name === 'makeEdition' ? [body] : []))
  expect(bodies).toEqual([
    { destination: 'people', form: 'people', filter: 'city:kelso', layout: null },
    { destination: 'people', form: 'people', filter: 'city:kelso', layout: PHONES.layout },
  ])
})

it('keeps the layout that is being written open where the file could not be begun', async () => {
  const { user } = shown()
  await user.click(screen.getByRole('button', { name: 'Columns and form of the file' }))
  await user.click(screen.getByRole('button', { name: 'Write the file' }))
  await screen.findByText('The list is being tidied.')
  expect(within(screen.getByRole('dialog')).getByText('The list is being tidied.')).toBeTruthy()
})

it('of rows as they came is never written as cards', async () => {
  const cards: KeptLayout = { name: 'Cards', layout: { ...usualLayout(), kind: 'vcard' } }
  const batch = batchOf({ name: 'Fair badges' })
  const { user, sent } = rendered(<PeopleFile isMain isOff={false} />, {
    readFileLayouts: [cards, PHONES],
    readBatches: [batch],
    makeEdition: made,
  })
  await user.selectOptions(await screen.findByLabelText('Layout of a file for people'), 'Cards')
  await user.selectOptions(screen.getByLabelText('Rows of the file'), batch.id)
  expect(screen.queryByRole('option', { name: 'Cards' })).toBeNull()
  await user.click(write())
  const asked = () => sent.find(({ name }) => name === 'makeEdition')
  await waitFor(() =>
    expect(asked()?.body).toMatchObject({ batchId: batch.id, layout: { kind: 'csv', hasExtras: false } }),
  )
})

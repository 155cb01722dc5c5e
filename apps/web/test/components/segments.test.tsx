/** @jest-environment <rootDir>/apps/web/test/components/browser.mjs */
import { expect, it } from '@jest/globals'
import { screen } from '@testing-library/react'
import type { Segment } from '@upper-field/contract'
import { Segments } from '../../src/split/Segments'
import { OPERATOR, Refusal, rendered } from './rendered'

const ID = '8b1f0f0e-3c1e-4d55-9f0e-5b0a3f1f2a10'
const deciders: Segment = { id: ID, name: 'Deciders', filter: 'level:head', contacts: 12, madeBy: OPERATOR.name }
const scots: Segment = { ...deciders, id: ID.replace('8', '9'), name: 'Scots', filter: 'city:kelso' }

it('opens a segment as the filter, and lets it go when it is pressed again', async () => {
  const { user, address } = rendered(<Segments />, { readMe: OPERATOR, readSegments: [deciders] })
  const segment = await screen.findByRole('button', { name: /^Deciders/ })
  await user.click(segment)
  expect(address()).toBe('/lists/l1?q=level:head')
  expect(segment.getAttribute('aria-pressed')).toBe('true')
  await user.click(segment)
  expect(address()).toBe('/lists/l1')
})

it('offers to save only a filter that is not saved yet, under a name', async () => {
  let segments = [deciders]
  const { user, sent } = rendered(
    <Segments />,
    {
      readMe: OPERATOR,
      readSegments: () => segments,
      keepSegment: () => {
        segments = [...segments, scots]
        return scots
      },
    },
    'q=city:kelso',
  )
  const save = await screen.findByRole('button', { name: 'Save the segment' })
  expect((save as HTMLButtonElement).disabled).toBe(true)
  await user.type(screen.getByLabelText('Save this filter as a segment'), '  Scots {Enter}')
  await screen.findByRole('button', { name: /^Scots/ })
  expect(sent.find(({ name }) => name === 'keepSegment')?.body).toEqual({ name: 'Scots', filter: 'city:kelso' })
  expect(screen.queryByRole('button', { name: 'Save the segment' })).toBeNull()
})

it('keeps the name that was typed where it cannot be saved, and says why', async () => {
  const { user } = rendered(
    <Segments />,
    {
      readMe: OPERATOR,
      readSegments: [],
      keepSegment: () => new Refusal(409, 'name-taken', 'There is a segment of this name.'),
    },
    'q=city:kelso',
  )
  const name = await screen.findByLabelText('Save this filter as a segment')
  await user.type(name, 'Scots{Enter}')
  expect(await screen.findByText('There is a segment of this name.')).toBeTruthy()
  expect((name as HTMLInputElement).value).toBe('Scots')
})

it('says why a segment could not be forgotten, and keeps it', async () => {
  const { user } = rendered(<Segments />, {
    readMe: OPERATOR,
    readSegments: [deciders],
    removeSegment: () => new Refusal(409, 'in-use', 'An audience is made of this segment.'),
  })
  await user.click(await screen.findByRole('button', { name: 'Forget the segment Deciders' }))
  await user.click(screen.getByRole('button', { name: 'Forget it' }))
  expect((await screen.findByRole('alert')).textContent).toBe('An audience is made of this segment.')
  expect(screen.getByRole('button', { name: /^Deciders/ })).toBeTruthy()
})

it('lets a viewer open segments, and neither save nor forget them', async () => {
  rendered(<Segments />, { readMe: { ...OPERATOR, role: 'viewer' }, readSegments: [deciders] }, 'q=city:kelso')
  await screen.findByRole('button', { name: /^Deciders/ })
  expect(screen.getAllByRole('button')).toHaveLength(1)
})

it('says so where the filter takes the place of another', async () => {
  const { user } = rendered(<Segments />, { readMe: OPERATOR, readSegments: [deciders] }, 'q=city:kelso')
  await user.type(await screen.findByLabelText('Save this filter as a segment'), 'Deciders ')
  expect(screen.getByRole('button', { name: 'Replace the segment' })).toBeTruthy()
  expect(screen.queryByRole('button', { name: 'Save the segment' })).toBeNull()
})

/** @jest-environment <rootDir>/apps/web/test/components/browser.mjs */
import { expect, it } from '@jest/globals'
import { screen, waitFor } from '@testing-library/react'
import type { List } from '@upper-field/contract'
import { useState } from 'react'
import { Link, Route, Routes } from 'react-router'
import { ListFrame } from '../../src/shell/ListFrame'
import { listOf } from './lists'
import { counted } from './piles'
import { type Answers, OPERATOR, Refusal, rendered } from './rendered'

const OTHER = '9f1c2a9e-7d1b-4f0e-9a53-0b6a5f7a2c11'
const TERRACE: List['terrace'] = [
  { stage: 'bring', count: 120, changes: [] },
  { stage: 'tidy', count: 110, changes: [] },
]

/** A stage in which something has been begun. */
function Stage() {
  const [draft, setDraft] = useState('')
  return (
    <>
      <label>
        Draft <input value={draft} onChange={(event) => setDraft(event.target.value)} />
      </label>
      <Link to={`/lists/${OTHER}/tidy`}>The other list</Link>
      <Link to="/lists/l1/tidy">The first list</Link>
    </>
  )
}

const shown = (readList: Answers['readList']) =>
  rendered(
    <>
      <span id="list-name" />
      <span id="list-search" />
      <Routes>
        <Route element={<ListFrame />}>
          <Route path="tidy" element={<Stage />} />
        </Route>
      </Routes>
    </>,
    { readMe: OPERATOR, readList, readJobs: [], readPiles: counted({}), readColumns: [] },
    '',
    { path: '/*', end: '/tidy' },
  )

it('carries nothing of a list into another: no draft, and not its name', async () => {
  let answer: (list: List) => void = () => {}
  const { user } = shown(({ path }) =>
    path.includes(OTHER)
      ? new Promise<List>((resolve) => {
          answer = resolve
        })
      : listOf({ terrace: TERRACE }),
  )
  await user.type(await screen.findByLabelText('Draft'), 'a step')
  await user.click(screen.getByRole('link', { name: 'The other list' }))
  expect(await screen.findByText('Reading the list …')).toBeTruthy()
  expect(screen.queryByLabelText('Draft')).toBeNull()
  answer(listOf({ id: OTHER, name: 'Spring fairs', terrace: TERRACE }))
  const draft = () => (screen.getByLabelText('Draft') as HTMLInputElement).value
  await waitFor(() => expect(draft()).toBe(''))
  // Both are known by now: nothing is read in between.
  await user.type(screen.getByLabelText('Draft'), 'another step')
  await user.click(screen.getByRole('link', { name: 'The first list' }))
  expect(draft()).toBe('')
})

it('says that a list is not there only where that is so', async () => {
  const gone = shown(() => new Refusal(404, 'not-found', 'There is no such list.'))
  expect(await screen.findByText('There is nothing at this address')).toBeTruthy()
  gone.unmount()
  let isUp = false
  const { user } = shown(() => (isUp ? listOf({ terrace: TERRACE }) : new Refusal(503, 'busy', 'Being started.')))
  expect((await screen.findByRole('alert')).textContent).toContain('Being started.')
  expect(screen.queryByText('There is nothing at this address')).toBeNull()
  isUp = true
  await user.click(screen.getByRole('button', { name: 'Read it again' }))
  await waitFor(() => expect(screen.getByLabelText('Draft')).toBeTruthy())
})

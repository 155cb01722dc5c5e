/** @jest-environment <rootDir>/apps/web/test/components/browser.mjs */
import { expect, it } from '@jest/globals'
import { screen, within } from '@testing-library/react'
import type { FileLayout, KeptLayout } from '@upper-field/contract'
import { LayoutDialog } from '../../src/send/LayoutDialog'
import { usualLayout } from '../../src/send/PeopleFile'
import { type Answers, rendered } from './rendered'

function opened(answers: Answers = {}) {
  const written: FileLayout[] = []
  const kept: string[] = []
  const dialog = (
    <LayoutDialog
      begun={{ ...usualLayout(), columns: usualLayout().columns.slice(0, 3) }}
      name=""
      names={['For the callers']}
      isOff={false}
      problem={undefined}
      onKept={(name) => kept.push(name)}
      onWrite={async (layout) => {
        written.push(layout)
      }}
      onClose={() => {}}
    />
  )
  return { ...rendered(dialog, answers), written, kept }
}
const headings = () => screen.getAllByLabelText(/^Heading of /).map((input) => (input as HTMLInputElement).value)
const press = (name: string | RegExp) => screen.getByRole('button', { name })

it('moves a column, leaves one out, and takes another at the end', async () => {
  const { user, written } = opened()
  expect(headings()).toEqual(['Name', 'Company', 'Title'])
  await user.click(press('Put Title earlier'))
  await user.click(press('Leave Name out'))
  await user.click(press('+ City'))
  await user.click(press('Write the file'))
  expect(written[0]?.columns).toEqual([
    { column: 'title', heading: 'Title' },
    { column: 'company', heading: 'Company' },
    { column: 'city', heading: 'City' },
  ])
})

it('goes neither before the first place nor behind the last, and keeps one column at least', async () => {
  const { user } = opened()
  const isOff = (name: string) => (press(name) as HTMLButtonElement).disabled
  expect([isOff('Put Name earlier'), isOff('Put Name later')]).toEqual([true, false])
  expect([isOff('Put Title earlier'), isOff('Put Title later')]).toEqual([false, true])
  await user.click(press('Leave Name out'))
  await user.click(press('Leave Title out'))
  expect(isOff('Leave Company out')).toBe(true)
})

it('is not written where two columns are headed alike', async () => {
  const { user, written } = opened()
  const company = screen.getByLabelText('Heading of Company')
  await user.clear(company)
  await user.type(company, 'NAME')
  expect(screen.getByText('Two columns are headed “name”.')).toBeTruthy()
  await user.click(press('Write the file'))
  expect(written).toEqual([])
})

it('offers of each kind of file only what that kind has', async () => {
  const { user } = opened()
  const isOff = (label: string) => (screen.getByLabelText(label) as HTMLInputElement).disabled
  expect([isOff('Delimiter'), isOff('Numbers as')]).toEqual([false, false])
  await user.selectOptions(screen.getByLabelText('Kind of file'), 'JSON lines')
  expect([isOff('Delimiter'), isOff('With a byte order mark'), isOff('Numbers as')]).toEqual([true, true, false])
  await user.selectOptions(screen.getByLabelText('Kind of file'), 'cards (vCard 4)')
  expect(isOff('Numbers as')).toBe(true)
  expect(screen.queryByRole('list', { name: 'Columns of the file' })).toBeNull()
})

it('keeps a layout by its name', async () => {
  const { user, sent, kept } = opened({ keepFileLayout: ({ body }) => body as KeptLayout })
  await user.selectOptions(screen.getByLabelText('Delimiter'), 'semicolon')
  await user.type(screen.getByLabelText('Keep this layout as'), ' Phones ')
  await user.click(within(screen.getByRole('dialog')).getByRole('button', { name: 'Keep' }))
  expect(kept).toEqual(['Phones'])
  expect(sent[0]?.body).toMatchObject({ name: 'Phones', layout: { delimiter: ';' } })
})

it('says so where it takes the place of another', async () => {
  const { user } = opened()
  const name = screen.getByLabelText('Keep this layout as')
  await user.type(name, 'For the callers')
  expect(press('Replace')).toBeTruthy()
  await user.type(name, ' in Wales')
  expect(press('Keep')).toBeTruthy()
})

/** @jest-environment <rootDir>/apps/web/test/components/browser.mjs */
import { describe, expect, it } from '@jest/globals'
import { screen, within } from '@testing-library/react'
import type { HeldRow } from '@upper-field/contract'
import { HeldRows } from '../../src/bring/HeldRows'
import { batchOf } from './batches'
import { type Answers, Refusal, rendered } from './rendered'

const BATCH = batchOf({ held: 3 })
const ROWS: HeldRow[] = [
  { row: 7, reason: 'too-few-cells', text: 'Ann Hill', cells: ['Ann Hill'], isCut: false },
  { row: 9, reason: 'too-few-cells', text: 'Ben Cole', cells: ['Ben Cole'], isCut: false },
  { row: 1204, reason: 'too-many-cells', text: 'a,b,c,d', cells: ['a', 'b', 'c', 'd'], isCut: false },
]
const shown = (more: Answers = {}) => rendered(<HeldRows batch={BATCH} />, { readHeld: ROWS, ...more })

describe('rows that could not be read', () => {
  it('stand as they stood, each with its number and why', async () => {
    shown()
    const rows = await screen.findAllByRole('button', { name: /^Mend row/ })
    expect(rows.map((one) => one.getAttribute('aria-label'))).toEqual(['Mend row 7', 'Mend row 9', 'Mend row 1204'])
    const line = rows[2]?.closest('tr') as HTMLElement
    expect(line.textContent).toMatch(/1,204.*more cells than there are headings.*a,b,c,d/)
    expect(screen.getByRole('link', { name: 'Download them as CSV' }).getAttribute('href')).toContain(BATCH.id)
  })

  it('are let in together where several lack the same', async () => {
    const { user, sent } = shown({ letInHeld: { letIn: 2, stillHeld: 1 } })
    await user.click(await screen.findByRole('button', { name: 'Let 2 rows in, blank at the end' }))
    expect(sent.find(({ name }) => name === 'letInHeld')?.body).toEqual({ reason: 'too-few-cells' })
    // One row alone is mended by itself.
    expect(screen.queryByRole('button', { name: /Let these/ })).toBeNull()
  })

  it('are not said to be all there are where more are held than are shown', async () => {
    const { user, sent } = rendered(<HeldRows batch={batchOf({ held: 9000 })} />, {
      readHeld: ROWS,
      letInHeld: { letIn: 8000, stillHeld: 1000 },
    })
    expect(await screen.findByText(/The first 3 are shown; the file holds all\./)).toBeTruthy()
    await user.click(screen.getByRole('button', { name: 'Let all such rows in, blank at the end' }))
    expect(sent.find(({ name }) => name === 'letInHeld')?.body).toEqual({ reason: 'too-few-cells' })
  })

  it('are not mended by what is only the beginning of a cell', async () => {
    const long: HeldRow = { row: 8, reason: 'too-few-cells', text: 'Ann', cells: ['Ann'], isCut: true }
    const { user } = shown({ readHeld: [long] })
    await user.click(await screen.findByRole('button', { name: 'Mend row 8' }))
    expect(screen.getByText(/too long to be mended here/)).toBeTruthy()
    expect(screen.queryByRole('textbox')).toBeNull()
  })

  it('are mended in a form that begins with what can be told, and names what is too much', async () => {
    const { user, sent } = shown({ mendHeld: batchOf({ held: 2, rows: 41 }) })
    await user.click(await screen.findByRole('button', { name: 'Mend row 1204' }))
    expect(screen.getByText(/1 cell too many: “d”/)).toBeTruthy()
    const form = screen.getByRole('button', { name: 'Let row 1,204 in' }).closest('form') as HTMLElement
    const cells = within(form).getAllByRole<HTMLInputElement>('textbox')
    expect(cells.map(({ value }) => value)).toEqual(['a', 'b', 'c'])
    // A column without a heading is called by its place.
    expect(within(form).getByLabelText(/^Column 3/)).toBe(cells[2])
    await user.clear(cells[1] as HTMLInputElement)
    await user.type(cells[1] as HTMLInputElement, '07911 204481{Enter}')
    expect(sent.find(({ name }) => name === 'mendHeld')?.body).toEqual({ cells: ['a', '07911 204481', 'c'] })
  })

  it('say why a mended row is not let in, and keep what was typed', async () => {
    const refusal = new Refusal(409, 'list-busy', 'This list is being worked on. Nothing was changed.')
    const { user } = shown({ mendHeld: () => refusal })
    await user.click(await screen.findByRole('button', { name: 'Mend row 7' }))
    const name = screen.getByRole<HTMLInputElement>('textbox', { name: /^Name/ })
    await user.type(name, 'er{Enter}')
    expect(await screen.findByText(/This list is being worked on/)).toBeTruthy()
    expect(name.value).toBe('Ann Hiller')
    await user.click(screen.getByRole('button', { name: 'Leave it held' }))
    expect(screen.queryByRole('textbox')).toBeNull()
  })
})

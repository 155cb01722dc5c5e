import { describe, expect, it } from '@jest/globals'
import { FileLayout } from '@upper-field/contract'
import fc from 'fast-check'
import { ALL_COLUMNS, mistakeIn, toggleColumn } from '../src/send/layoutDraft'
import { usualLayout } from '../src/send/PeopleFile'

describe('a layout that is changed', () => {
  it('begins as the usual one, which can be kept', () => {
    expect(FileLayout.safeParse(usualLayout()).success).toBe(true)
    expect(mistakeIn(usualLayout())).toBeNull()
  })
  it('never loses its last column, and has each once', () =>
    fc.assert(
      fc.property(fc.array(fc.constantFrom(...ALL_COLUMNS), { maxLength: 60 }), (toggles) => {
        const layout = toggles.reduce(toggleColumn, usualLayout())
        const columns = layout.columns.map(({ column }) => column)
        expect(columns.length).toBeGreaterThan(0)
        expect(new Set(columns).size).toBe(columns.length)
        expect(FileLayout.safeParse(layout).success).toBe(true)
      }),
    ))
  it('tells headings that cannot be', () => {
    const headed = (...headings: string[]) => ({
      ...usualLayout(),
      columns: headings.map((heading, at) => ({ column: ALL_COLUMNS[at] ?? 'name', heading })),
    })
    expect(mistakeIn(headed('Who', 'who'))).toBe('Two columns are headed “who”.')
    expect(mistakeIn(headed('Who', ' '))).toBe('Every column has a heading.')
    expect(mistakeIn(headed('=A1', 'Who'))).toBe('“=A1” begins as a formula does.')
    expect(mistakeIn({ ...headed('', ''), kind: 'vcard' })).toBeNull()
  })
})

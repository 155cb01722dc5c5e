import { describe, expect, it } from '@jest/globals'
import type { NumberedRow } from '@upper-field/files'
import fc from 'fast-check'
import { addedText } from '../src/suppression/addedText'
import { nextPage, type SuppressionFilePage } from '../src/suppression/nextPage'

const USES = ['numbers', null, 'emails'] as const

const read = (row: number, ...cells: string[]): NumberedRow => ({
  row,
  judged: { status: 'read', cells, text: cells.join(','), mends: [] },
})
const held = (row: number): NumberedRow => ({ row, judged: { status: 'held', text: '', reason: 'too-few-cells' } })

async function pagesOf(rows: readonly NumberedRow[]): Promise<SuppressionFilePage[]> {
  const all = rows[Symbol.iterator]()
  const reading = { next: async () => all.next() }
  const pages: SuppressionFilePage[] = []
  for (;;) {
    const page = await nextPage(reading, USES)
    pages.push(page)
    if (page.isLast) return pages
  }
}

describe('a suppression file in pages', () => {
  it('sends the cells that are used, by their use, and tells the rows that were held', async () => {
    const [page] = await pagesOf([read(2, '07911 204481', 'Maren', 'maren@causeway.example'), held(3)])
    expect(page).toEqual({
      rows: [{ row: 2, numbers: ['07911 204481'], emails: ['maren@causeway.example'], domains: [], hashes: [] }],
      held: [3],
      isLast: true,
    })
  })

  it('sends no more rows in a call than it takes', async () => {
    const pages = await pagesOf(Array.from({ length: 12_000 }, (_, i) => read(i + 2, `0791120${i}`, '', '')))
    expect(pages.map(({ rows }) => rows.length)).toEqual([5000, 5000, 2000])
  })

  it('sends fewer rows where their cells are long', async () => {
    const long = '7'.repeat(900_000)
    const pages = await pagesOf(Array.from({ length: 7 }, (_, i) => read(i + 2, long, long, '')))
    expect(pages.map(({ rows }) => rows.length)).toEqual([3, 3, 1])
  })

  it('loses no row', async () => {
    const row = fc.oneof(
      fc.constant((at: number) => held(at)),
      fc.nat({ max: 400_000 }).map((length) => (at: number) => read(at, 'x'.repeat(length), '', '')),
    )
    await fc.assert(
      fc.asyncProperty(fc.array(row, { maxLength: 40 }), async (makers) => {
        const pages = await pagesOf(makers.map((make, i) => make(i + 2)))
        const told = pages.flatMap(({ rows, held }) => [...rows.map((one) => one.row), ...held])
        expect(told.toSorted((a, b) => a - b)).toEqual(makers.map((_, i) => i + 2))
      }),
      { numRuns: 20 },
    )
  })
})

describe('what became of entries', () => {
  const nothing = { added: 0, known: 0, marked: 0, waiting: 0 }

  it('tells of contacts that are marked later, where there are any', () => {
    expect(addedText({ ...nothing, added: 3, marked: 1 })).toBe('3 entries added. 1 contact marked in all lists.')
    const later = addedText({ ...nothing, added: 9000, known: 12, waiting: 2500 })
    expect(later).toMatch(/^9,000 entries added, 12 on the list already\. 0 contacts marked in all lists\. /)
    expect(later).toMatch(/2,500 contacts are being marked, .* no file holds them from now on\.$/)
  })

  it('tells of hashes that are looked for among very many contacts', () => {
    const told = addedText({ ...nothing, added: 9000, areLookedFor: true })
    expect(told).toMatch(/^9,000 entries added\. .* Who is behind the hashes is being looked for, .* from now on\.$/)
  })
})

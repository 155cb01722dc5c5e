import { CELL_KINDS, type CellKind, kindOfCell } from './cellKinds'
import { type Damage, damagesOf } from './damage'
import { isBlankCell } from './grid'

/** What one column holds, told from its first cells. */
export interface ColumnFacts {
  readonly heading: string
  readonly samples: readonly string[]
  /** Share of blank cells, 0 to 1. */
  readonly blank: number
  /** Shares of the filled cells by what they look like, 0 to 1. */
  readonly kinds: Readonly<Record<CellKind, number>>
  /** Of the phone cells: how many belong to each country (ISO 3166-1 alpha-2), most first. */
  readonly countries: readonly { readonly country: string; readonly cells: number }[]
  readonly longest: string
  /** A filled cell unlike most of its column. */
  readonly oddest: string | null
  readonly damages: readonly { readonly damage: Damage; readonly cells: number; readonly example: string }[]
}

/** Tells what the cells of a column look like. `country` is where its numbers are dialled from, if known. */
export function describeColumn(heading: string, cells: readonly string[], country: string | null): ColumnFacts {
  const filled = cells.filter((cell) => !isBlankCell(cell))
  const seen = filled.map((cell) => kindOfCell(cell, country))
  const tally = new Map<CellKind, number>()
  const countries = new Map<string, number>()
  let zerosLost = 0
  for (const { kind, reading } of seen) {
    tally.set(kind, (tally.get(kind) ?? 0) + 1)
    const found = reading?.numbers[0]?.country
    if (found) countries.set(found, (countries.get(found) ?? 0) + 1)
    if (reading?.repairs.includes('lost-zero')) zerosLost++
  }
  const usual = [...tally].sort((a, b) => b[1] - a[1])[0]?.[0]
  const odd = seen.findIndex(({ kind }) => kind !== usual && (tally.get(kind) ?? 0) <= Math.max(1, filled.length / 50))
  return {
    heading,
    samples: filled.slice(0, 5),
    blank: cells.length === 0 ? 1 : 1 - filled.length / cells.length,
    kinds: Object.fromEntries(
      CELL_KINDS.map((kind) => [kind, filled.length === 0 ? 0 : (tally.get(kind) ?? 0) / filled.length]),
    ) as Record<CellKind, number>,
    countries: [...countries].sort((a, b) => b[1] - a[1]).map(([code, n]) => ({ country: code, cells: n })),
    longest: filled.reduce((longest, cell) => (cell.length > longest.length ? cell : longest), ''),
    oddest: odd === -1 ? null : (filled[odd] ?? null),
    damages: damagesIn(
      filled,
      zerosLost,
      seen.findIndex(({ reading }) => reading?.repairs.includes('lost-zero')),
    ),
  }
}

function damagesIn(filled: readonly string[], zerosLost: number, firstZero: number): ColumnFacts['damages'] {
  const found = new Map<Damage, { cells: number; example: string }>()
  for (const cell of filled) {
    for (const damage of damagesOf(cell)) {
      const one = found.get(damage)
      if (one) one.cells++
      else found.set(damage, { cells: 1, example: cell })
    }
  }
  if (zerosLost > 0) found.set('zeros-lost', { cells: zerosLost, example: filled[firstZero] ?? '' })
  return [...found].map(([damage, one]) => ({ damage, ...one })).sort((a, b) => b.cells - a.cells)
}

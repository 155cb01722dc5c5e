import type { Filter, FilterField } from '@upper-field/core/split'
import { writeFilter } from '@upper-field/core/split'
import type { ReactNode } from 'react'
import { useListView } from '../shell/useListView'
import { count } from '../words/format'

/** One way to divide contacts: the pile it narrows, and its values with their names. */
interface Axis {
  readonly pile: FilterField
  readonly values: readonly (readonly [value: string, name: string])[]
}

interface CountFieldProps {
  readonly label: string
  readonly rows: Axis
  readonly columns: Axis
  /** Colours of the columns, in their order. */
  readonly colors: readonly string[]
  /** Contacts by `row/column`. */
  readonly counts: Readonly<Record<string, number>>
  /** Before each count, where they are estimates. */
  readonly sign: string
  readonly glyphOf?: (row: string) => ReactNode
}

const LARGEST = 30

/** One division of contacts against another: each count as a square of its size, that opens whom it counts. */
export function CountField({ label, rows, columns, colors, counts, sign, glyphOf }: CountFieldProps) {
  const { filter, setText } = useListView()
  const most = Math.max(1, ...Object.values(counts))
  return (
    <table aria-label={label} className="mb-4 w-full max-w-[680px]">
      <thead className="text-left text-[13px] text-soft">
        <tr>
          <th className="w-44 font-normal">
            <span className="sr-only">{label}</span>
          </th>
          {columns.values.map(([value, name]) => (
            <th key={value} className="pb-1 font-normal">
              {name}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {rows.values.map(([row, name]) => (
          <tr key={row} className="border-t border-line">
            <th scope="row" className="py-1 text-left font-normal">
              {glyphOf?.(row)} {name}
            </th>
            {columns.values.map(([column, columnName], at) => {
              const piles = { [rows.pile]: row, [columns.pile]: column }
              const isOpen = isNarrowedTo(filter, piles)
              return (
                <td key={column} className="h-9">
                  <CountCell
                    n={counts[`${row}/${column}`] ?? 0}
                    most={most}
                    sign={sign}
                    color={colors[at] ?? 'var(--edge)'}
                    name={`${name}, ${columnName}`}
                    isOpen={isOpen}
                    onOpen={() => setText(writeFilter(isOpen ? without(filter, piles) : narrowed(filter, piles)))}
                  />
                </td>
              )
            })}
          </tr>
        ))}
      </tbody>
    </table>
  )
}

type Cell = Readonly<Partial<Record<FilterField, string>>>

/** True where a filter means just the contacts of one cell, of these piles. */
export const isNarrowedTo = ({ piles }: Filter, cell: Cell): boolean =>
  Object.entries(cell).every(([pile, value]) => {
    const chosen = piles[pile as FilterField] ?? []
    return chosen.length === 1 && chosen[0] === value
  })

/** The filter narrowed to one cell, whatever of its piles was chosen before. */
export const narrowed = (filter: Filter, cell: Cell): Filter => ({
  ...filter,
  piles: { ...filter.piles, ...Object.fromEntries(Object.entries(cell).map(([pile, value]) => [pile, [value]])) },
})

const without = (filter: Filter, cell: Cell): Filter => ({
  ...filter,
  piles: { ...filter.piles, ...Object.fromEntries(Object.keys(cell).map((pile) => [pile, []])) },
})

function CountCell(props: {
  n: number
  most: number
  sign: string
  color: string
  name: string
  isOpen: boolean
  onOpen: () => void
}) {
  const { n, most, sign, color, name, isOpen, onOpen } = props
  const side = n === 0 ? 0 : Math.max(3, Math.sqrt(n / most) * LARGEST)
  const shape = (
    <>
      <span className="flex w-8 justify-center" aria-hidden="true">
        <span className="rounded-[1px]" style={{ width: side, height: side, background: color }} />
      </span>
      <span className={`num text-[13px] ${n === 0 ? 'text-soft' : ''}`}>{`${n === 0 ? '' : sign}${count(n)}`}</span>
    </>
  )
  if (n === 0) return <span className="flex items-center gap-2 px-1">{shape}</span>
  return (
    <button
      type="button"
      aria-pressed={isOpen}
      aria-label={`${name}: ${count(n)}`}
      className={`flex h-9 items-center gap-2 rounded px-1 pr-3 hover:bg-lichen ${isOpen ? 'bg-lichen' : ''}`}
      onClick={onOpen}
    >
      {shape}
    </button>
  )
}

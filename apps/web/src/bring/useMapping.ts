import type { Layout } from '@upper-field/contract'
import { assignField, type Field, type Mapping, type OpenedTable } from '@upper-field/core/table'
import { useState } from 'react'
import type { MappingSource } from './ColumnStrips'

/** Columns the operator has set, of a table of so many. */
interface Settled {
  readonly width: number
  readonly columns: Readonly<Record<number, Field | null>>
}

/** The mapping of a file: as last time where its layout is known, else as suggested, and then as the operator sets it. */
export function useMapping(table: OpenedTable | null, layout: Layout | null) {
  const suggested: Mapping = table?.suggestions.map(({ field }) => field) ?? []
  const [settled, setSettled] = useState<Settled>({ width: 0, columns: {} })
  // What was said of the columns of another delimiter says nothing of these.
  const changed = settled.width === suggested.length ? settled.columns : {}
  const isKnown = layout !== null && layout.mapping.length === suggested.length
  const start: Mapping = isKnown ? layout.mapping : suggested
  const mapping = Object.entries(changed).reduce(
    (before, [column, field]) => assignField(before, Number(column), field),
    start,
  )
  return {
    mapping,
    isKnown,
    assign: (column: number, field: Field | null) => {
      const next = assignField(mapping, column, field)
      setSettled({
        width: next.length,
        columns: Object.fromEntries(next.flatMap((one, i) => (one === start[i] ? [] : [[i, one]]))),
      })
    },
    sourceOf: (column: number): MappingSource =>
      column in changed ? 'set' : isKnown && mapping[column] !== null ? 'last-time' : 'suggested',
  }
}

import type { Layout } from '@upper-field/contract'
import { assignField, type Field, type Mapping, type OpenedTable } from '@upper-field/core/table'
import { useState } from 'react'
import type { MappingSource } from './ColumnStrips'

/** The mapping of a file: as last time where its layout is known, else as suggested, and then as the operator sets it. */
export function useMapping(table: OpenedTable | null, layout: Layout | null) {
  const [changed, setChanged] = useState<Readonly<Record<number, Field | null>>>({})
  const suggested: Mapping = table?.suggestions.map(({ field }) => field) ?? []
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
      setChanged(Object.fromEntries(next.flatMap((one, i) => (one === start[i] ? [] : [[i, one]]))))
    },
    sourceOf: (column: number): MappingSource =>
      column in changed ? 'set' : isKnown && mapping[column] !== null ? 'last-time' : 'suggested',
  }
}

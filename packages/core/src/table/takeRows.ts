import { type GridRow, isBlankRow, type Merge, type Merged, type SheetRow } from './grid'

/** How the rows of a sheet are taken. */
export interface RowWishes {
  readonly merged: Merged
  /** True where rows hidden in the sheet are taken too. */
  readonly takesHidden: boolean
}

/** How rows are taken where nobody says otherwise. */
export const DEFAULT_ROW_WISHES: RowWishes = { merged: 'every', takesHidden: false }

interface OpenArea {
  readonly area: Merge
  readonly value: string
}

/**
 * Takes the rows of a sheet in order: merged areas are filled into the rows they cover as these pass by, hidden and
 * blank rows are null, cells of hidden columns (positions from 0) are blank.
 */
export function rowTaker(
  merges: readonly Merge[],
  { merged, takesHidden }: RowWishes,
  hiddenColumns: readonly number[] = [],
): (row: SheetRow) => GridRow | null {
  const starting = new Map<number, Merge[]>()
  if (merged === 'every') for (const area of merges) starting.set(area.top, [...(starting.get(area.top) ?? []), area])
  const blanked = takesHidden ? [] : hiddenColumns
  let open: OpenArea[] = []
  return ({ row, cells, isHidden }) => {
    if (starting.size === 0 && blanked.length === 0)
      return (isHidden && !takesHidden) || isBlankRow(cells) ? null : { row, cells }
    const filled = [...cells]
    for (const area of starting.get(row) ?? []) open.push({ area, value: cells[area.left] ?? '' })
    open = open.filter(({ area }) => area.bottom >= row)
    for (const one of open) fill(filled, one)
    for (const column of blanked) if (filled[column]) filled[column] = ''
    return (isHidden && !takesHidden) || isBlankRow(filled) ? null : { row, cells: filled }
  }
}

function fill(cells: string[], { area, value }: OpenArea): void {
  for (let i = area.left; i <= area.right && value !== ''; i++) {
    while (cells.length <= i) cells.push('')
    if (cells[i] === '') cells[i] = value
  }
}

import { type Merge, type SheetRow, type TableArea, tablesIn } from '@upper-field/core/table'
import { type Container, noFindings, type SheetName } from './container'

/** Rows of a sheet that are looked at for a second table. */
const LOOKED_AT = 2000
/** Sheets that are looked at; a workbook of more is read by its sheets. */
const MOST_SHEETS = 12

/** A workbook whose sheets may hold several tables: each but the first of a sheet is a sheet of its own. */
export async function withTables(container: Container): Promise<Container> {
  if (container.sheets.length > MOST_SHEETS) return container
  const areas = new Map<string, { readonly sheet: string; readonly area: TableArea }>()
  const sheets: SheetName[] = []
  for (const { name, hidden } of container.sheets) {
    const found = tablesIn(await headOf(container, name))
    sheets.push({ name, hidden })
    if (found.length < 2) continue
    for (const [i, area] of found.entries()) {
      const named = i === 0 ? name : freeName(`${name} (table ${i + 1})`, container.sheets)
      areas.set(named, { sheet: name, area })
      if (i > 0) sheets.push({ name: named, hidden })
    }
  }
  if (areas.size === 0) return container
  return {
    ...container,
    sheets,
    facts: async (name) => {
      const one = areas.get(name)
      if (!one) return container.facts(name)
      const facts = await container.facts(one.sheet)
      return {
        ...facts,
        merges: facts.merges.flatMap((merge) => shifted(merge, one.area) ?? []),
        hiddenColumns: facts.hiddenColumns.flatMap((at) =>
          at >= one.area.left && at <= one.area.right ? [at - one.area.left] : [],
        ),
      }
    },
    rows: (name, findings, limit) => {
      const one = areas.get(name)
      return one ? rowsWithin(container.rows(one.sheet, findings), one.area) : container.rows(name, findings, limit)
    },
  }
}

const freeName = (wanted: string, taken: readonly SheetName[]): string =>
  taken.some(({ name }) => name === wanted) ? freeName(`${wanted} `, taken) : wanted

async function headOf(container: Container, name: string): Promise<SheetRow[]> {
  const rows: SheetRow[] = []
  for await (const batch of container.rows(name, noFindings(), LOOKED_AT)) {
    rows.push(...batch)
    if (rows.length >= LOOKED_AT) break
  }
  return rows
}

async function* rowsWithin(
  rows: AsyncIterable<readonly SheetRow[]>,
  { top, bottom, left, right }: TableArea,
): AsyncGenerator<readonly SheetRow[]> {
  for await (const batch of rows) {
    const within = batch.filter(({ row }) => row >= top && row <= bottom)
    if (within.length > 0) yield within.map((row) => ({ ...row, cells: row.cells.slice(left, right + 1) }))
    if ((batch.at(-1)?.row ?? 0) > bottom) return
  }
}

/** A merged area as it lies in one table; null where it lies outside. */
function shifted(merge: Merge, { top, bottom, left, right }: TableArea): Merge | null {
  if (merge.bottom < top || merge.top > bottom || merge.right < left || merge.left > right) return null
  return {
    top: merge.top,
    bottom: merge.bottom,
    left: Math.max(0, merge.left - left),
    right: Math.min(right, merge.right) - left,
  }
}

import { type Format, MOST_COLUMNS, notes, type SheetRow } from '@upper-field/core/table'
import { BROKEN_ITEM, type Container } from './container'
import { FileRefusal } from './refusal'

/** One item of a file (a card, an object): its values by name, or its text where it cannot be read. */
export type Item =
  | { readonly status: 'read'; readonly values: ReadonlyMap<string, string> }
  | { readonly status: 'broken'; readonly text: string }

export interface ItemOptions {
  /** How many items are looked at for their names; all by default. */
  readonly look?: number
  /** Columns that were settled before: they stand first, and names found since come behind them. */
  readonly headings?: readonly string[]
  /** The list that is wanted, where a file holds several. */
  readonly sheet?: string
  readonly order?: (names: readonly string[]) => readonly string[]
}

const BATCH = 500
const SHEET = ''

/**
 * A container whose items name their own columns. Columns are gathered in a first pass over all items; `order`
 * decides how they stand.
 */
export async function containerOfItems(
  format: Format,
  items: () => AsyncIterable<Item>,
  { look, headings: settled, order = (names) => names }: ItemOptions = {},
): Promise<Container> {
  const names = new Set<string>()
  let seen = 0
  for await (const item of items()) {
    if (item.status === 'read') for (const name of item.values.keys()) names.add(name)
    if (names.size > MOST_COLUMNS) throw new FileRefusal('too-many-columns')
    if (++seen === look) break
  }
  if (seen === 0) throw new FileRefusal('no-table')
  const headings = settled ? [...settled, ...[...names].filter((name) => !settled.includes(name))] : order([...names])
  const nested = headings.filter((name) => name.includes('.')).length
  return {
    format,
    sheets: [{ name: SHEET, hidden: false }],
    notes: nested > 0 && format !== 'vcard' ? [notes.flattened(nested)] : [],
    headings,
    facts: async () => ({ merges: [], hiddenRows: 0, hiddenColumns: [] }),
    rows: () => rowsOf(items(), headings),
  }
}

async function* rowsOf(items: AsyncIterable<Item>, headings: readonly string[]): AsyncGenerator<readonly SheetRow[]> {
  let batch: SheetRow[] = []
  let row = 0
  for await (const item of items) {
    row++
    const cells =
      item.status === 'read' ? headings.map((name) => item.values.get(name) ?? '') : [`${BROKEN_ITEM}${item.text}`]
    batch.push({ row, cells, isHidden: false })
    if (batch.length < BATCH) continue
    yield batch
    batch = []
  }
  if (batch.length > 0) yield batch
}

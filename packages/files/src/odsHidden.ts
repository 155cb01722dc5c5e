import { SaxesParser } from 'saxes'
import type { Archive } from './archive'
import { FileRefusal } from './refusal'

/** What an OpenDocument spreadsheet hides: tables by name, rows (from 1) by table. The spreadsheet library does not tell. */
export interface OdsHidden {
  readonly tables: ReadonlySet<string>
  readonly rows: ReadonlyMap<string, ReadonlySet<number>>
}

const MOST_INFLATED = 400 << 20
/** Cells with something in them, repeats counted: what the library makes of them must fit into memory. */
const MOST_CELLS = 2_000_000
/** No list holds one row so often: an archive of three kilobytes can say a million. */
const MOST_REPEATS = 10_000
const MOST_HIDDEN = 1_000_000

/**
 * Reads the hidden parts of `content.xml` (OpenDocument 1.3, part 3), before any library sees it. Refuses one that
 * inflates too far, also by what it says is repeated.
 */
export async function readOdsHidden(archive: Archive): Promise<OdsHidden> {
  const hiddenStyles = new Set<string>()
  const tables = new Set<string>()
  const rows = new Map<string, Set<number>>()
  let style = ''
  let table = ''
  let row = 1
  let hidden = 0
  const extent = createExtent()
  const parser = new SaxesParser()
  parser.on('opentag', ({ name, attributes }) => {
    const a = attributes as Record<string, string>
    switch (name) {
      case 'style:style':
        style = a['style:name'] ?? ''
        break
      case 'style:table-properties':
        if (a['table:display'] === 'false') hiddenStyles.add(style)
        break
      case 'table:table':
        table = a['table:name'] ?? ''
        row = 1
        if (hiddenStyles.has(a['table:style-name'] ?? '')) tables.add(table)
        break
      case 'table:table-row': {
        const times = repeats(a['table:number-rows-repeated'])
        extent.openRow(times)
        const isHidden = (a['table:visibility'] ?? 'visible') !== 'visible'
        const found = rows.get(table) ?? new Set<number>()
        // A repeated run to the end of the sheet holds nothing.
        if (isHidden && times < MOST_REPEATS) {
          hidden += times
          if (hidden > MOST_HIDDEN) throw new FileRefusal('inflates-too-far')
          for (let i = 0; i < times; i++) found.add(row + i)
        }
        rows.set(table, found)
        row += times
        break
      }
      case 'table:table-cell':
      case 'table:covered-table-cell':
        extent.openCell(
          repeats(a['table:number-columns-repeated']),
          a['office:value-type'] !== undefined || a['table:formula'] !== undefined,
        )
        break
      case 'text:p':
        extent.fillCell()
        break
    }
  })
  parser.on('closetag', ({ name }) => {
    if (name === 'table:table-cell' || name === 'table:covered-table-cell') extent.closeCell()
    if (name === 'table:table-row') extent.closeRow()
  })
  parser.on('error', () => {
    throw new FileRefusal('damaged-file')
  })
  const decoder = new TextDecoder()
  let size = 0
  for await (const chunk of archive.stream('content.xml')) {
    size += chunk.length
    if (size > MOST_INFLATED) throw new FileRefusal('too-large-for-format')
    parser.write(decoder.decode(chunk, { stream: true }))
  }
  return { tables, rows }
}

/** How often something is repeated: once where nothing is said. Throws a refusal for what is no count. */
function repeats(told = '1'): number {
  if (!/^[1-9]\d{0,8}$/.test(told)) throw new FileRefusal('damaged-file')
  return Number(told)
}

/** Counts the cells that a sheet comes to with its repeats. Throws a refusal where they are beyond what a list can be. */
function createExtent() {
  let cells = 0
  let rowTimes = 1
  let filledInRow = 0
  let cellTimes = 1
  let isFilled = false
  return {
    openRow: (times: number) => {
      rowTimes = times
      filledInRow = 0
    },
    openCell: (times: number, hasValue: boolean) => {
      cellTimes = times
      isFilled = hasValue
    },
    fillCell: () => {
      isFilled = true
    },
    closeCell: () => {
      if (isFilled) filledInRow += cellTimes
      isFilled = false
    },
    closeRow: () => {
      if (filledInRow === 0) return
      if (rowTimes > MOST_REPEATS) throw new FileRefusal('inflates-too-far')
      cells += filledInRow * rowTimes
      if (cells > MOST_CELLS) throw new FileRefusal('too-large-for-format')
    },
  }
}

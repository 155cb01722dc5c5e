import { SaxesParser } from 'saxes'
import type { Archive } from './archive'
import { FileRefusal } from './refusal'

/** What an OpenDocument spreadsheet hides: tables by name, rows (from 1) by table. The spreadsheet library does not tell. */
export interface OdsHidden {
  readonly tables: ReadonlySet<string>
  readonly rows: ReadonlyMap<string, ReadonlySet<number>>
}

const MOST_INFLATED = 400 << 20

/** Reads the hidden parts of `content.xml` (OpenDocument 1.3, part 3), and refuses one that inflates too far. */
export async function readOdsHidden(archive: Archive): Promise<OdsHidden> {
  const hiddenStyles = new Set<string>()
  const tables = new Set<string>()
  const rows = new Map<string, Set<number>>()
  let style = ''
  let table = ''
  let row = 1
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
        const times = Number(a['table:number-rows-repeated'] ?? 1)
        const isHidden = (a['table:visibility'] ?? 'visible') !== 'visible'
        const found = rows.get(table) ?? new Set<number>()
        // A repeated run to the end of the sheet holds nothing.
        if (isHidden && times < 10_000) for (let i = 0; i < times; i++) found.add(row + i)
        rows.set(table, found)
        row += times
        break
      }
    }
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

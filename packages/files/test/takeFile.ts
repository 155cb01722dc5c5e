import { type FileWishes, openFile, readFileRows, sourceOfBytes } from '../src'

export type Made = Uint8Array | Promise<Uint8Array>

/** Everything a file says: how it was opened, its rows without the columns left out, and what was held. */
export async function take(made: Made, name = 'list.csv', wishes: FileWishes = {}) {
  const source = sourceOfBytes(await made)
  const opened = await openFile(source, name, wishes)
  if (opened.status === 'refused') throw new Error(`refused: ${opened.problem}`)
  const kept = opened.table.headings.flatMap((heading, i) => (heading === '' ? [] : [i]))
  const rows: string[][] = []
  const held: string[] = []
  for await (const { row, judged } of readFileRows(source, opened, wishes)) {
    if (judged.status === 'read') rows.push(kept.map((i) => judged.cells[i] ?? ''))
    if (judged.status === 'held') held.push(`${row} ${judged.reason}`)
  }
  return {
    format: opened.format,
    encoding: opened.encoding?.encoding,
    delimiter: opened.dialect?.delimiter,
    headings: kept.map((i) => opened.table.headings[i]),
    fields: kept.map((i) => opened.table.suggestions[i]?.field ?? null),
    headingsRow: opened.table.shape.headings?.last ?? null,
    codes: opened.notes.map(({ code }) => code),
    texts: opened.notes.map(({ text }) => text),
    sheets: opened.sheets,
    sheet: opened.sheet,
    rows,
    held,
  }
}

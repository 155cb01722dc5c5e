/**
 * The cells of one record's text. Quotes are taken off where they enclose a whole cell; quotes inside an unquoted
 * cell stay as they stand.
 */
export function splitCells(text: string, delimiter: string): string[] {
  if (!text.includes('"')) return text.split(delimiter)
  const cells: string[] = []
  let at = 0
  while (at <= text.length) {
    const cell = text[at] === '"' ? quotedCell(text, at, delimiter) : plainCell(text, at, delimiter)
    cells.push(cell.value)
    at = cell.next
  }
  return cells
}

interface Cell {
  readonly value: string
  readonly next: number
}

function plainCell(text: string, start: number, delimiter: string): Cell {
  const end = text.indexOf(delimiter, start)
  return end === -1
    ? { value: text.slice(start), next: text.length + 1 }
    : { value: text.slice(start, end), next: end + 1 }
}

function quotedCell(text: string, start: number, delimiter: string): Cell {
  let close = text.indexOf('"', start + 1)
  while (close !== -1 && text[close + 1] === '"') close = text.indexOf('"', close + 2)
  if (close === -1) return plainCell(text, start, delimiter)
  const rest = plainCell(text, close + 1, delimiter)
  if (rest.value.trim() !== '') return { value: text.slice(start, rest.next - 1), next: rest.next }
  return { value: text.slice(start + 1, close).replaceAll('""', '"'), next: rest.next }
}

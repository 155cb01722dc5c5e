import type { Merge, SheetRow } from '@upper-field/core/table'
import { SaxesParser } from 'saxes'
import { noteFormula, type SheetFindings } from '../container'
import { FileRefusal } from '../refusal'
import { shownText } from '../shownText'
import { isTrue, localName, type WorkbookParts } from './parts'
import { unescapeControls } from './strings'

const MOST_CELLS = 16_384

/** Reads the XML of one sheet as it arrives. */
export interface SheetParser {
  write(xml: string): void
  /** The rows finished since the last call. */
  take(): SheetRow[]
  readonly merges: readonly Merge[]
  readonly hiddenColumns: readonly number[]
  readonly hiddenRows: number
}

export interface SheetContext {
  readonly parts: Pick<WorkbookParts, 'formats' | 'date1904'>
  readonly textAt: (index: number) => string
  readonly findings: SheetFindings
}

interface OpenCell {
  column: number
  address: string
  type: string
  style: number
  value: string
  inline: string
  hasFormula: boolean
}

export function sheetParser({ parts, textAt, findings }: SheetContext): SheetParser {
  const merges: Merge[] = []
  const hiddenColumns: number[] = []
  let hiddenRows = 0
  let rows: SheetRow[] = []
  let cells: string[] = []
  let row = 0
  let isHidden = false
  let cell: OpenCell | null = null
  let reading: 'value' | 'inline' | null = null
  const parser = new SaxesParser()
  parser.on('opentag', ({ name, attributes }) => {
    const a = attributes as Record<string, string>
    switch (localName(name)) {
      case 'row':
        row = a.r ? Number(a.r) : row + 1
        isHidden = isTrue(a.hidden)
        if (isHidden) hiddenRows++
        cells = []
        break
      case 'c':
        cell = {
          column: a.r ? columnOf(a.r) : cells.length,
          address: a.r ?? '',
          type: a.t ?? 'n',
          style: Number(a.s ?? 0),
          value: '',
          inline: '',
          hasFormula: false,
        } // prettier-ignore
        break
      case 'v':
        reading = 'value'
        break
      case 't':
        reading = cell ? 'inline' : null
        break
      case 'f':
        if (cell) cell.hasFormula = true
        break
      case 'col':
        if (isTrue(a.hidden))
          for (let i = Number(a.min); i <= Math.min(Number(a.max), MOST_CELLS); i++) hiddenColumns.push(i - 1)
        break
      case 'mergeCell':
        if (a.ref) merges.push(areaOf(a.ref))
        break
    }
  })
  parser.on('text', (text) => {
    if (!cell || !reading) return
    if (reading === 'value') cell.value += text
    else cell.inline += text
  })
  parser.on('closetag', ({ name }) => {
    switch (localName(name)) {
      case 'v':
      case 't':
        reading = null
        break
      case 'c': {
        if (!cell || cell.column >= MOST_CELLS) break
        const text = textOf(cell)
        if (text !== '') {
          while (cells.length < cell.column) cells.push('')
          cells[cell.column] = text
        }
        cell = null
        break
      }
      case 'row':
        if (cells.length > 0) rows.push({ row, cells, isHidden })
        break
    }
  })
  parser.on('error', () => {
    throw new FileRefusal('damaged-file')
  })

  function textOf(one: OpenCell): string {
    if (one.hasFormula && one.value === '' && one.type !== 'str') {
      noteFormula(findings, one.address)
      return ''
    }
    switch (one.type) {
      case 's':
        return one.value === '' ? '' : textAt(Number(one.value))
      case 'inlineStr':
        return unescapeControls(one.inline)
      case 'str':
        return unescapeControls(one.value)
      case 'b':
        return one.value === '1' ? 'TRUE' : one.value === '0' ? 'FALSE' : ''
      case 'e':
      case 'd':
        return one.value
      default:
        return numberText(one)
    }
  }

  function numberText(one: OpenCell): string {
    if (one.value === '') return ''
    const value = Number(one.value)
    if (!Number.isFinite(value)) return one.value
    const { text, isStored } = shownText(value, parts.formats[one.style] ?? 'General', parts.date1904)
    if (isStored && findings.storedDigits++ === 0) findings.firstStored = one.address
    return text
  }

  return {
    write: (xml) => void parser.write(xml),
    take: () => {
      const done = rows
      rows = []
      return done
    },
    merges,
    hiddenColumns,
    get hiddenRows() {
      return hiddenRows
    },
  }
}

/** Position of the column in an address such as `AB12`, from 0. */
export function columnOf(address: string): number {
  let column = 0
  for (let i = 0; i < address.length; i++) {
    const code = address.charCodeAt(i) & 0xdf
    if (code < 65 || code > 90) break
    column = column * 26 + code - 64
  }
  return column - 1
}

function areaOf(ref: string): Merge {
  const [from = '', to = from] = ref.split(':')
  const rowOf = (address: string) => Number(address.replace(/\D/g, ''))
  return { top: rowOf(from), left: columnOf(from), bottom: rowOf(to), right: columnOf(to) }
}

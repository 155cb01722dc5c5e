import * as XLSX from '@e965/xlsx'
import { Uint8ArrayWriter, ZipWriter } from '@zip.js/zip.js'

/** Bytes of nasty files, made here and nowhere else. */
export const utf8 = (text: string): Uint8Array => new TextEncoder().encode(text)
export const latin1 = (text: string): Uint8Array => Uint8Array.from(text, (char) => char.charCodeAt(0))
export const bytes = (...values: number[]): Uint8Array => Uint8Array.from(values)

export function utf16(text: string, { bigEndian = false, mark = true } = {}): Uint8Array {
  const all = (mark ? '\ufeff' : '') + text
  const made = new Uint8Array(all.length * 2)
  const view = new DataView(made.buffer)
  for (let i = 0; i < all.length; i++) view.setUint16(i * 2, all.charCodeAt(i), !bigEndian)
  return made
}

/** Letters of a single-byte encoding, by decoding every byte once. */
export function single(encoding: string, text: string): Uint8Array {
  const decoder = new TextDecoder(encoding)
  const table = new Map<string, number>()
  for (let code = 0; code < 256; code++) table.set(decoder.decode(bytes(code), { stream: true }), code)
  return Uint8Array.from(text, (char) => table.get(char) ?? 0x3f)
}

export async function zip(
  parts: Readonly<Record<string, string | Uint8Array>>,
  password?: string,
): Promise<Uint8Array> {
  const writer = new ZipWriter(new Uint8ArrayWriter(), { useWebWorkers: false, ...(password ? { password } : {}) })
  for (const [name, part] of Object.entries(parts)) {
    const content = typeof part === 'string' ? utf8(part) : part
    await writer.add(name, new Blob([content as Uint8Array<ArrayBuffer>]).stream())
  }
  return writer.close()
}

const CONTENT_TYPES =
  '<?xml version="1.0"?><Types xmlns="http://schemas.openxmlformats.org/package/2006/content-types"/>'
const RELATION = 'http://schemas.openxmlformats.org/officeDocument/2006/relationships'

/** A workbook written part by part, for what no library writes. */
export function rawWorkbook(
  sheetXml: string,
  {
    parts = {},
    strings = '',
    styles = '',
    cols = '',
  }: { parts?: Record<string, string | Uint8Array>; strings?: string; styles?: string; cols?: string } = {},
): Promise<Uint8Array> {
  const relations = [
    `<Relationship Id="r1" Type="${RELATION}/worksheet" Target="worksheets/sheet1.xml"/>`,
    strings ? `<Relationship Id="r2" Type="${RELATION}/sharedStrings" Target="sharedStrings.xml"/>` : '',
    styles ? `<Relationship Id="r3" Type="${RELATION}/styles" Target="styles.xml"/>` : '',
    `<Relationship Id="r9" Type="${RELATION}/externalLinkPath" TargetMode="External" Target="file:///etc/passwd"/>`,
  ]
  return zip({
    '[Content_Types].xml': CONTENT_TYPES,
    'xl/workbook.xml': `<workbook xmlns:r="${RELATION}"><sheets><sheet name="Sheet1" sheetId="1" r:id="r1"/></sheets></workbook>`,
    'xl/_rels/workbook.xml.rels': `<Relationships>${relations.join('')}</Relationships>`,
    'xl/worksheets/sheet1.xml': `<worksheet>${cols}<sheetData>${sheetXml}</sheetData></worksheet>`,
    ...(strings ? { 'xl/sharedStrings.xml': `<sst>${strings}</sst>` } : {}),
    ...(styles ? { 'xl/styles.xml': styles } : {}),
    ...parts,
  })
}

/** An OpenDocument spreadsheet with this XML as its one table. */
export function rawOds(tableXml: string): Uint8Array {
  const file = XLSX.CFB.utils.cfb_new()
  const add = (name: string, text: string) => XLSX.CFB.utils.cfb_add(file, `/${name}`, utf8(text))
  add('mimetype', 'application/vnd.oasis.opendocument.spreadsheet')
  add(
    'META-INF/manifest.xml',
    '<manifest:manifest xmlns:manifest="urn:oasis:names:tc:opendocument:xmlns:manifest:1.0"/>',
  )
  add('styles.xml', '<office:document-styles xmlns:office="o"/>')
  add(
    'content.xml',
    `<office:document-content xmlns:office="o" xmlns:table="t" xmlns:text="x" office:version="1.3"><office:body><office:spreadsheet><table:table table:name="People">${tableXml}</table:table></office:spreadsheet></office:body></office:document-content>`,
  )
  return new Uint8Array(XLSX.CFB.write(file, { type: 'array', fileType: 'zip', compression: true }) as ArrayBuffer)
}

export const odsCell = (text: string, more = ''): string =>
  `<table:table-cell office:value-type="string" ${more}><text:p>${text}</text:p></table:table-cell>`

export const odsRow = (cells: readonly string[], more = ''): string =>
  `<table:table-row ${more}>${cells.join('')}</table:table-row>`

type Cell = string | number | boolean | null | XLSX.CellObject

export interface BookSheet {
  readonly name?: string
  readonly cells: readonly (readonly Cell[])[]
  readonly merged?: readonly string[]
  readonly hiddenRows?: readonly number[]
  readonly hidden?: boolean
}

export function book(sheets: readonly BookSheet[], bookType: 'xlsx' | 'xls' | 'biff8' | 'ods' = 'xlsx'): Uint8Array {
  const made = XLSX.utils.book_new()
  for (const [i, { name, cells, merged, hiddenRows }] of sheets.entries()) {
    const sheet = XLSX.utils.aoa_to_sheet(cells.map((row) => [...row]))
    if (merged) sheet['!merges'] = merged.map((area) => XLSX.utils.decode_range(area))
    if (hiddenRows) {
      sheet['!rows'] = []
      for (const row of hiddenRows) sheet['!rows'][row - 1] = { hidden: true }
    }
    XLSX.utils.book_append_sheet(made, sheet, name ?? `Sheet${i + 1}`)
  }
  made.Workbook = { Sheets: sheets.map(({ hidden }) => ({ Hidden: hidden ? 1 : 0 })) }
  return new Uint8Array(XLSX.write(made, { type: 'array', bookType, bookSST: true, cellStyles: true }) as ArrayBuffer)
}

/** A compound file that holds nothing but an encrypted package, as a locked workbook is stored. */
export function lockedWorkbook(): Uint8Array {
  const file = XLSX.CFB.utils.cfb_new()
  XLSX.CFB.utils.cfb_add(file, '/EncryptionInfo', utf8('x'))
  XLSX.CFB.utils.cfb_add(file, '/EncryptedPackage', new Uint8Array(4096).fill(7))
  return new Uint8Array(XLSX.CFB.write(file, { type: 'array' }) as ArrayBuffer)
}

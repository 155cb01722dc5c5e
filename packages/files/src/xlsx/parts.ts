import { SSF } from '@e965/xlsx'
import { SaxesParser } from 'saxes'
import type { Archive } from '../archive'
import type { SheetName } from '../container'
import { FileRefusal } from '../refusal'

export interface WorkbookSheet extends SheetName {
  /** Its part in the archive. */
  readonly part: string
}

export interface WorkbookParts {
  readonly sheets: readonly WorkbookSheet[]
  readonly date1904: boolean
  readonly sharedStrings: string | null
  /** Format code of each cell style, by position. */
  readonly formats: readonly string[]
  readonly hasMacros: boolean
  readonly hasExternalLinks: boolean
}

/** Reads what a workbook (ECMA-376) says of itself: sheets, formats, where the strings are. */
export async function readParts(archive: Archive): Promise<WorkbookParts> {
  const workbook = await workbookPart(archive)
  const folder = workbook.slice(0, workbook.lastIndexOf('/') + 1)
  const targets = await relations(archive, workbook)
  const sheets: WorkbookSheet[] = []
  let date1904 = false
  eachTag(await archive.text(workbook), (name, attributes) => {
    if (name === 'workbookPr') date1904 = isTrue(attributes.date1904)
    if (name !== 'sheet') return
    const target = targets.find(({ id }) => id === (attributes['r:id'] ?? attributes.id))
    if (!target || !/worksheet$/.test(target.type)) return
    const part = resolve(folder, target.target)
    if (archive.has(part))
      sheets.push({ name: attributes.name ?? part, hidden: (attributes.state ?? 'visible') !== 'visible', part })
  })
  if (sheets.length === 0) throw new FileRefusal('no-sheet')
  const partOf = (kind: RegExp) => {
    const found = targets.find(({ type }) => kind.test(type))
    const part = found && resolve(folder, found.target)
    return part && archive.has(part) ? part : null
  }
  const styles = partOf(/styles$/)
  return {
    sheets,
    date1904,
    sharedStrings: partOf(/sharedStrings$/),
    formats: styles ? formatsOf(await archive.text(styles)) : [],
    hasMacros: archive.names.some((name) => /vbaProject\.bin$/i.test(name)),
    hasExternalLinks: archive.names.some((name) => /\/externalLinks\//i.test(name)),
  }
}

async function workbookPart(archive: Archive): Promise<string> {
  if (archive.has('xl/workbook.xml')) return 'xl/workbook.xml'
  const root = archive.has('_rels/.rels') ? await relations(archive, '') : []
  const found = root.find(({ type }) => /\/officeDocument$/.test(type))
  const part = found && resolve('', found.target)
  if (part && archive.has(part) && /workbook\.xml$/.test(part)) return part
  throw new FileRefusal('not-a-workbook')
}

interface Relation {
  readonly id: string
  readonly type: string
  readonly target: string
}

async function relations(archive: Archive, part: string): Promise<Relation[]> {
  const at = part.lastIndexOf('/') + 1
  const name = `${part.slice(0, at)}_rels/${part.slice(at)}.rels`
  if (!archive.has(name)) return []
  const found: Relation[] = []
  eachTag(await archive.text(name), (tag, { Id = '', Type = '', Target = '', TargetMode }) => {
    // What lies outside the file is never followed.
    if (tag === 'Relationship' && TargetMode !== 'External') found.push({ id: Id, type: Type, target: Target })
  })
  return found
}

function resolve(folder: string, target: string): string {
  if (target.startsWith('/')) return target.slice(1)
  const parts: string[] = []
  for (const part of (folder + target).split('/')) {
    if (part === '..') parts.pop()
    else if (part !== '.') parts.push(part)
  }
  return parts.join('/')
}

function formatsOf(styles: string): string[] {
  const custom = new Map<number, string>()
  const formats: string[] = []
  let isInCells = false
  eachTag(styles, (name, attributes, isOpen) => {
    if (name === 'cellXfs') isInCells = isOpen
    if (!isOpen) return
    if (name === 'numFmt') custom.set(Number(attributes.numFmtId), attributes.formatCode ?? 'General')
    if (name === 'xf' && isInCells) {
      const id = Number(attributes.numFmtId ?? 0)
      const standard = SSF.get_table() as Readonly<Record<number, string>>
      formats.push(custom.get(id) ?? standard[id] ?? 'General')
    }
  })
  return formats
}

export const isTrue = (value: string | undefined): boolean => value === '1' || value === 'true'

/** Walks the tags of a small part, local names only. Entities beyond XML's own are refused by the parser. */
function eachTag(
  xml: string,
  onTag: (name: string, attributes: Readonly<Record<string, string>>, isOpen: boolean) => void,
): void {
  const parser = new SaxesParser()
  parser.on('opentag', (tag) => onTag(localName(tag.name), tag.attributes as Record<string, string>, true))
  parser.on('closetag', (tag) => onTag(localName(tag.name), {}, false))
  parser.on('error', () => {
    throw new FileRefusal('damaged-file')
  })
  parser.write(xml).close()
}

export const localName = (name: string): string => (name.includes(':') ? name.slice(name.indexOf(':') + 1) : name)

import { describe, expect, it } from '@jest/globals'
import { FILE_PROBLEM_TEXT } from '@upper-field/core/table'
import { openFile, sourceOfBytes } from '../src'
import { book, bytes, lockedWorkbook, odsCell, odsRow, rawOds, rawWorkbook, utf8, zip } from './makers'
import type { Made } from './takeFile'

async function refusal(made: Made, name = 'list.csv'): Promise<string> {
  const opened = await openFile(sourceOfBytes(await made), name)
  if (opened.status === 'opened') return 'opened'
  expect(FILE_PROBLEM_TEXT[opened.problem]).toMatch(/^[A-Z].*\.$/)
  return opened.problem
}

describe('refused, each with a sentence that says what to do', () => {
  const bomb = () =>
    rawWorkbook(`<row r="1"><c r="A1" t="inlineStr"><is><t>${' '.repeat(120 << 20)}</t></is></c></row>`)
  it.each<[string, () => Made, string]>([
    ['no bytes', () => bytes(), 'empty-file'],
    ['blank lines', () => utf8('\n \n\r\n'), 'empty-file'],
    ['a picture', () => bytes(0x89, 0x50, 0x4e, 0x47, 13, 10, 26, 10), 'binary-file'],
    ['random bytes', () => Uint8Array.from({ length: 500 }, (_, i) => (i * 37) % 256), 'binary-file'],
    ['a document', () => utf8('%PDF-1.7 x'), 'document'],
    ['a compressed file', () => bytes(0x1f, 0x8b, 8, 0, 0), 'compressed-file'],
    ['a web page', () => utf8('<html><table><tr><td>Name</td></tr></table></html>'), 'web-page'],
    ['an archive without a workbook', () => zip({ 'a.csv': 'Name,Phone\n' }), 'not-a-workbook'],
    ['a text document', () => zip({ 'word/document.xml': '<x/>' }), 'document'],
    ['an archive cut in half', async () => (await rawWorkbook('<row r="1"/>')).subarray(0, 300), 'damaged-file'],
    ['a locked workbook', lockedWorkbook, 'locked-workbook'],
    ['a locked archive', () => zip({ 'xl/workbook.xml': '<x/>' }, 'secret'), 'locked-workbook'],
    ['an archive that inflates without end', bomb, 'inflates-too-far'],
    [
      'a spreadsheet of three kilobytes that says one row a million times',
      () => rawOds(odsRow([odsCell('Ann'), odsCell('020 7946 1234')], 'table:number-rows-repeated="1000000"')),
      'inflates-too-far',
    ],
    [
      'one that repeats cells across rows beyond what fits',
      () =>
        rawOds(
          odsRow([odsCell('x', 'table:number-columns-repeated="1000"')], 'table:number-rows-repeated="9000"').repeat(3),
        ),
      'too-large-for-format',
    ],
    [
      'one that repeats formulas',
      () => rawOds(odsRow(['<table:table-cell table:formula="of:=1"/>'], 'table:number-rows-repeated="1000000"')),
      'inflates-too-far',
    ],
    [
      'one that repeats minus a million times',
      () => rawOds(odsRow([odsCell('x')], 'table:number-rows-repeated="-1000000"')),
      'damaged-file',
    ],
    [
      'one that hides rows without end',
      () =>
        rawOds(
          odsRow([], 'table:number-rows-repeated="9999" table:visibility="collapse"').repeat(120) +
            odsRow([odsCell('x')]),
        ),
      'inflates-too-far',
    ],
    ['a workbook whose XML is broken', () => rawWorkbook('<row r="1"><c r="A1"><v>1</c></row>'), 'damaged-file'],
    [
      'XML that declares entities',
      () => rawWorkbook('<row r="1"><c r="A1" t="inlineStr"><is><t>&lol;</t></is></c></row>'),
      'damaged-file',
    ],
    ['a workbook without cells', () => book([{ cells: [] }]), 'no-table'],
    ['16,000 columns', () => utf8(`${'a,'.repeat(15_999)}a\n${'1,'.repeat(15_999)}1\n`), 'too-many-columns'],
    ['JSON that breaks off', () => utf8('[{"name":"Ann"},{"na'), 'broken-json'],
    ['an empty array', () => utf8('[]'), 'no-table'],
  ])('%s', async (_, made, problem) => expect(await refusal(made())).toBe(problem))
})

describe('repeats that every spreadsheet writes', () => {
  it('are read: blank rows and cells to the end of the sheet, a value a few times', async () => {
    const opened = await openFile(
      sourceOfBytes(
        await rawOds(
          [
            odsRow([odsCell('Name'), odsCell('Phone'), '<table:table-cell table:number-columns-repeated="16382"/>']),
            odsRow([odsCell('Ann'), odsCell('020 7946 1234')]),
            odsRow([odsCell('Same', 'table:number-columns-repeated="2"')], 'table:number-rows-repeated="3"'),
            odsRow(
              ['<table:table-cell table:number-columns-repeated="16384"/>'],
              'table:number-rows-repeated="1048570"',
            ),
          ].join(''),
        ),
      ),
      'list.ods',
    )
    expect(opened).toMatchObject({ status: 'opened', format: 'ods' })
    if (opened.status !== 'opened') return
    expect(opened.table.firstRows.map(({ cells }) => cells.slice(0, 2))).toEqual([
      ['Ann', '020 7946 1234'],
      ['Same', 'Same'],
      ['Same', 'Same'],
      ['Same', 'Same'],
    ])
  })
})

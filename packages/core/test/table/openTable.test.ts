import { describe, expect, it } from '@jest/globals'
import {
  csvLine,
  type Field,
  harmlessCell,
  judgeEncoding,
  judgeRow,
  openText,
  recognise,
  splitCells,
} from '../../src/table'

const encode = (text: string) => new TextEncoder().encode(text)
const latin = (text: string) => Uint8Array.from(text, (char) => char.charCodeAt(0))

function open(bytes: Uint8Array, country: string | null = null) {
  const opened = openText(bytes, { isWhole: true, country })
  if (opened.status === 'refused') throw new Error(opened.problem)
  return opened
}

describe('dialect', () => {
  it.each([
    ['commas', 'name,phone\na,1\nb,2\n', ','],
    ['semicolons with commas inside', 'name;note\na;x, y\nb;z, w\n', ';'],
    ['tabs', 'name\tphone\na\t1\n', '\t'],
    ['semicolons where a quoted cell holds commas', '"a,b,c";x\n"d,e,f";y\n', ';'],
  ])('%s', (_, text, delimiter) =>
    expect(open(encode(text)).dialect).toMatchObject({ delimiter, encoding: 'utf-8', bom: 0 }),
  )

  it('takes the byte order mark off', () => {
    const opened = open(encode('\ufeffname,phone\na,1\n'))
    expect(opened.dialect.bom).toBe(3)
    expect(opened.headings).toEqual(['name', 'phone'])
  })

  it('reads Windows-1252 where the bytes are no UTF-8', () => {
    const opened = open(latin('Name;Straße\nJürgen;Weg 3\n'))
    expect(opened.dialect.encoding).toBe('windows-1252')
    expect(opened.firstRows.map(({ cells }) => cells)).toEqual([['Jürgen', 'Weg 3']])
  })

  it('is not misled by a character cut off at the end of the head', () => {
    const bytes = encode('name,place\nJürgen,Kö')
    expect(judgeEncoding(bytes.subarray(0, bytes.length - 1))).toMatchObject({
      encoding: 'utf-8',
      evidence: 'valid-utf-8',
    })
  })

  it.each([
    ['nothing', new Uint8Array(), 'empty-file'],
    ['blank lines only', encode('\n  \n'), 'empty-file'],
    ['a picture', new Uint8Array([0x89, 0x50, 0x4e, 0x47, 0, 1, 2]), 'binary-file'],
    ['random bytes', Uint8Array.from({ length: 400 }, (_, i) => (i * 37) % 256), 'binary-file'],
  ])('refuses %s', (_, bytes, problem) => expect(recognise(bytes)).toEqual({ kind: 'refused', problem }))
})

describe('suggested fields', () => {
  const suggested = (text: string, country: string | null = null) =>
    open(encode(text), country).suggestions.map(({ field }) => field)

  it.each<[string, string, (Field | null)[]]>([
    [
      'English',
      'First Name,Last Name,Company,Mobile,E-mail,Country\na,b,c,07911 204481,x@y.example,GB\n',
      ['given-name', 'family-name', 'company', 'number', 'email', 'country'],
    ],
    [
      'German',
      'Vorname;Nachname;Firma;Telefon;Handy;PLZ;Ort\na;b;c;0431 5557720;0171 5550914;24103;Kiel\n',
      ['given-name', 'family-name', 'company', 'number', 'number', 'postal-code', 'city'],
    ],
    [
      'French',
      'Prénom;Nom;Société;Portable;Ville;Pays\na;b;c;06 12 55 09 18;Angers;France\n',
      ['given-name', 'family-name', 'company', 'number', 'city', 'country'],
    ],
    [
      'Spanish',
      'Nombre;Apellidos;Empresa;Teléfono móvil;Correo electrónico\na;b;c;1;x@y.example\n',
      ['given-name', 'family-name', 'company', 'number', 'email'],
    ],
  ])('by headings in %s', (_, text, fields) => expect(suggested(text)).toEqual(fields))

  it('by what the cells hold, where the headings tell nothing', () => {
    expect(suggested('x1,x2,x3\n07911 204481,a@b.example,hello\n01665 555018,c@d.example,there\n', 'GB')).toEqual([
      'number',
      'email',
      null,
    ])
  })

  it('does not believe a heading its cells contradict', () => {
    expect(suggested('Phone,Email\na@b.example,07911 204481\nc@d.example,01665 555018\n', 'GB')).toEqual([
      'email',
      'number',
    ])
  })

  it('gives a single field to one column only', () => {
    expect(suggested('Company,Company name\na,b\n')).toEqual(['company', null])
  })

  it('sees a file without headings', () => {
    const opened = open(encode('Maren,07911 204481\nTom,01665 555018\n'), 'GB')
    expect(opened).toMatchObject({ shape: { headings: null, firstRow: 1 }, headings: ['Column 1', 'Column 2'] })
    expect(opened.firstRows).toHaveLength(2)
  })
})

describe('rows', () => {
  const shape = { delimiter: ',', encoding: 'utf-8' as const }
  const rules = { headings: ['name', 'phone', 'note'], hasHeadings: true, isSheet: false }
  it.each([
    ['too few cells', 'a,b', 'too-few-cells'],
    ['too many cells', 'a,b,c,d', 'too-many-cells'],
    ['bytes that are no letters', 'a,\ufffd,c', 'wrong-encoding'],
  ])('are held with %s', (_, text, reason) =>
    expect(judgeRow(text, null, shape, rules)).toMatchObject({ status: 'held', reason }),
  )

  it('may have blank cells too many', () => expect(judgeRow('a,b,c,,', null, shape, rules).status).toBe('read'))
  it('may be blank', () => expect(judgeRow(', ,', null, shape, rules).status).toBe('blank'))
  it('are held with the problem the scan found', () =>
    expect(judgeRow('"a,b', 'open-quote', shape, rules)).toMatchObject({ reason: 'open-quote' }))

  it('are split as they were quoted', () => {
    expect(splitCells('a,"b, ""c""",,"d"', ',')).toEqual(['a', 'b, "c"', '', 'd'])
    expect(splitCells('"Acme" Ltd,x', ',')).toEqual(['"Acme" Ltd', 'x'])
    expect(splitCells('', ',')).toEqual([''])
  })
})

describe('writing', () => {
  it('quotes what CSV asks for, and reads back the same', () => {
    const cells = ['plain', 'a,b', 'say "x"', 'two\nlines', ' spaced ']
    expect(splitCells(csvLine(cells).trimEnd(), ',')).toEqual(cells)
  })

  it.each(['=1+1', '+cmd', '-2', '@x', '\t=1', ' =1', '＝1'])('makes %j harmless', (cell) =>
    expect(harmlessCell(cell)).toBe(`'${cell}`),
  )
  it.each(['+447911204481', 'Maren', '', 'a=b'])('leaves %j alone', (cell) => expect(harmlessCell(cell)).toBe(cell))
})

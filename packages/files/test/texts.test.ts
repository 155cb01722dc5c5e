import { describe, expect, it } from '@jest/globals'
import { latin1, single, utf8, utf16 } from './makers'
import { take } from './takeFile'

const PEOPLE = 'Name;Phone\nJürgen Größer;0171 2345678\nChloé Müller;030 123456\n'
const ROWS = [
  ['Jürgen Größer', '0171 2345678'],
  ['Chloé Müller', '030 123456'],
]

describe('encodings, each told by its bytes', () => {
  it.each<[string, Uint8Array, string]>([
    ['UTF-8', utf8(PEOPLE), 'utf-8'],
    ['UTF-8 with a mark', utf8(`\ufeff${PEOPLE}`), 'utf-8'],
    ['UTF-16 LE with a mark', utf16(PEOPLE), 'utf-16le'],
    ['UTF-16 BE with a mark', utf16(PEOPLE, { bigEndian: true }), 'utf-16be'],
    ['UTF-16 LE without a mark', utf16(PEOPLE, { mark: false }), 'utf-16le'],
    ['UTF-16 BE without a mark', utf16(PEOPLE, { bigEndian: true, mark: false }), 'utf-16be'],
    ['Windows-1252', single('windows-1252', PEOPLE), 'windows-1252'],
    ['Macintosh', single('macintosh', PEOPLE), 'macintosh'],
  ])('%s', async (_, made, encoding) => {
    expect(await take(made)).toMatchObject({ encoding, rows: ROWS, headings: ['Name', 'Phone'] })
  })

  it.each<[string, string, string]>([
    ['windows-1250', 'Žofie Dvořáková', 'Łukasz Śliwiński'],
    ['windows-1251', 'Анна Кузнецова', 'Пётр Смирнов'],
    ['koi8-r', 'Анна Кузнецова', 'Пётр Смирнов'],
    ['windows-1253', 'Ελένη Παπαδοπούλου', 'Γιώργος Νικολαΐδης'],
    ['windows-1254', 'Ayşe Yıldız', 'Çağlar Şahin'],
  ])('%s', async (encoding, one, two) => {
    const made = single(encoding, `Name,Phone\n${one},+49 171 2345678\n${two},+49 171 2345679\n`)
    expect(await take(made)).toMatchObject({
      encoding,
      rows: [
        [one, '+49 171 2345678'],
        [two, '+49 171 2345679'],
      ],
    })
  })

  it('dashes, quotes and the euro sign of Windows-1252 are kept', async () => {
    const made = single('windows-1252', 'Name,Note,Phone\nAnn,“5 € – o’clock”,020 7946 1234\n')
    expect((await take(made)).rows).toEqual([['Ann', '“5 € – o’clock”', '020 7946 1234']])
  })

  it('another one can be set, and changes the rows at once', async () => {
    const made = single('windows-1252', PEOPLE)
    expect((await take(made, 'list.csv', { encoding: 'macintosh' })).rows[0]?.[0]).toBe('J¸rgen Grˆﬂer')
  })

  it('rows of another encoding inside a UTF-8 file are held', async () => {
    const lines = Array.from({ length: 20 }, (_, i) => `Zoë Ö${i},0171 23456${i}`).join('\n')
    const made = Uint8Array.from([...utf8(`Name,Phone\n${lines}\n`), ...latin1('J\u00fcrgen,0171 1\n')])
    expect(await take(made)).toMatchObject({ encoding: 'utf-8', held: ['22 wrong-encoding'] })
  })
})

describe('delimiters', () => {
  it.each([',', ';', '\t', '|', '~', '^', '#', ':'])('%j', async (delimiter) => {
    const text = [
      ['Name', 'City', 'Mail'],
      ['Ann', 'York', 'a@b.example'],
      ['Ben', 'Bath', 'b@b.example'],
    ]
    const made = utf8(text.map((cells) => cells.join(delimiter)).join('\n'))
    expect(await take(made)).toMatchObject({ delimiter, rows: text.slice(1) })
  })

  it('the one a first line states', async () => {
    expect(await take(utf8('sep=|\nName|Phone\nA, B|1\n'))).toMatchObject({ delimiter: '|', rows: [['A, B', '1']] })
  })

  it('none: one column of addresses', async () => {
    expect(await take(utf8('https://a.example/x\nhttps://b.example/y\nhttps://c.example/z\n'))).toMatchObject({
      fields: ['web'],
      headingsRow: null,
    })
  })

  it('quoted cells with delimiters, quotes and line breaks', async () => {
    const made = utf8('Name,Note,Phone\n"Ash, Ann","say ""hi""\nthere",1\n')
    expect((await take(made)).rows).toEqual([['Ash, Ann', 'say "hi"\nthere', '1']])
  })
})

describe('odd characters', () => {
  it('control and direction characters are told of and kept in the row', async () => {
    const found = await take(utf8('Name,Phone\nAnn\u0007,\u202a020 7946 1234\u202c\nBen,1\nCy,2\n'))
    expect(found.rows[0]).toEqual(['Ann\u0007', '\u202a020 7946 1234\u202c'])
    expect(found.codes).toEqual(expect.arrayContaining(['control-characters', 'direction-marks']))
  })

  it('a cell of a megabyte is cut, its row stays usable, and it takes no time to tell', async () => {
    const made = utf8(`Name,Phone\nAnn,1\nBen,${'x'.repeat(1_000_000)}\n`)
    const found = await take(made)
    expect(found.held).toEqual([])
    expect(found.rows.map(([name, cell]) => [name, cell?.length])).toEqual([
      ['Ann', 1],
      ['Ben', 65_536],
    ])
  })
})

import { describe, expect, it } from '@jest/globals'
import { utf8 } from './makers'
import { take } from './takeFile'

describe('cards and JSON', () => {
  it('vCards of both versions, with several telephones and e-mails; a broken one is held', async () => {
    const found = await take(
      utf8(
        'BEGIN:VCARD\r\nVERSION:3.0\r\nFN:Ann Hill\r\nN:Hill;Ann;;;\r\nORG:Linde\\, Ltd;Sales\r\nTEL;TYPE=CELL:+44 7911 204481\r\nitem1.TEL;TYPE=WORK:+44 20 7946\r\n  1234\r\nEMAIL:a@linde.example\r\nEMAIL:b@linde.example\r\nEND:VCARD\r\n' +
          'BEGIN:VCARD\r\nVERSION:4.0\r\nFN:Ben Cole\r\nTEL;VALUE=uri;TYPE="voice,home":tel:+34-911-23-45-67\r\nEND:VCARD\r\n' +
          'BEGIN:VCARD\r\nVERSION:2.1\r\nFN:Old Kettle\r\nEND:VCARD\r\nBEGIN:VCARD\r\nVERSION:3.0\r\nFN:Cut',
      ),
      'people.vcf',
    )
    expect(found.format).toBe('vcard')
    expect(
      found.rows.map((row) => Object.fromEntries(found.headings.map((heading, i) => [heading, row[i]]))),
    ).toMatchObject([
      {
        'Full name': 'Ann Hill',
        Company: 'Linde, Ltd',
        'Mobile phone': '+44 7911 204481',
        'Work phone': '+44 20 7946 1234',
        'E-mail 2': 'b@linde.example',
      },
      { 'Full name': 'Ben Cole', 'Home phone': '+34-911-23-45-67' },
      { 'Full name': 'Old Kettle' },
    ])
    expect(found.held).toEqual(['4 broken-item'])
  })

  const cards = async (...lines: string[]) => {
    const found = await take(utf8(['BEGIN:VCARD', ...lines, 'END:VCARD', ''].join('\r\n')), 'people.vcf')
    expect(found.held).toEqual([])
    return Object.fromEntries(found.headings.map((heading, i) => [heading, found.rows[0]?.[i]]))
  }

  it.each<[string, string, Record<string, string>]>([
    [
      'quoted-printable in UTF-8',
      'FN;CHARSET=UTF-8;ENCODING=QUOTED-PRINTABLE:J=C3=BCrgen Bl=C3=A4ser',
      { 'Full name': 'Jürgen Bläser' },
    ],
    [
      'quoted-printable in an older character set',
      'FN;CHARSET=ISO-8859-1;QUOTED-PRINTABLE:J=FCrgen',
      { 'Full name': 'Jürgen' },
    ],
    ['a soft break within a quoted line', 'FN;ENCODING=QUOTED-PRINTABLE:Ann =\r\nHill', { 'Full name': 'Ann Hill' }],
    ['a bare type word', 'TEL;CELL:+44 7911 204481', { 'Mobile phone': '+44 7911 204481' }],
    ['several bare type words', 'TEL;WORK;VOICE:020 7946 1234', { 'Work phone': '020 7946 1234' }],
    ['commas that are no separators', 'ORG:Linde, Hill and Sons;Sales', { Company: 'Linde, Hill and Sons' }],
    ['an escaped semicolon', 'ORG:Linde\\; Hill;Sales', { Company: 'Linde; Hill' }],
  ])('a card of version 2.1: %s', async (_, line, expected) => {
    expect(await cards('VERSION:2.1', 'N:Hill;Ann', line)).toMatchObject(expected)
  })

  it.each<[string, string, string, Record<string, string>]>([
    ['3.0', 'escapes in a telephone', 'TEL;TYPE=CELL:+44\\,7911 204481', { 'Mobile phone': '+44,7911 204481' }],
    ['4.0', 'an escaped colon in an e-mail', 'EMAIL:ann\\:x@linde.example', { 'E-mail': 'ann:x@linde.example' }],
    [
      '4.0',
      'an extension in a telephone',
      'TEL;VALUE=uri;TYPE=work:tel:+44-20-7946-1234;ext=15',
      { 'Work phone': '+44-20-7946-1234;ext=15' },
    ],
  ])('a card of version %s: %s', async (version, _, line, expected) => {
    expect(await cards(`VERSION:${version}`, 'FN:Ann', line)).toMatchObject(expected)
  })

  it('the longest list at whatever depth; the others are lists to choose from', async () => {
    const made = utf8(
      JSON.stringify({
        made: { by: ['a', 'b'] },
        answer: {
          people: [
            { name: 'Ann', phone: '1', orders: [{ no: 1 }, { no: 2 }, { no: 3 }, { no: 4 }] },
            { name: 'Ben', phone: '2' },
            { name: 'Cy', phone: '3' },
          ],
          firms: [
            { title: 'Linde', site: 'linde.example' },
            { title: 'Hill', site: 'hill.example' },
          ],
        },
      }),
    )
    const found = await take(made, 'a.json')
    expect(found.rows.map(([name]) => name)).toEqual(['Ann', 'Ben', 'Cy'])
    expect(found.codes).toContain('other-sheets')
    const firms = await take(made, 'a.json', { sheet: 'answer.firms' })
    expect(firms).toMatchObject({
      headings: ['title', 'site'],
      rows: [
        ['Linde', 'linde.example'],
        ['Hill', 'hill.example'],
      ],
    })
  })

  it('people by their keys; what is no object among people is held', async () => {
    expect(
      (await take(utf8('{"people":{\n"a1":{"name":"Ann","phone":"1"},\n"b2":{"name":"Ben","phone":"2"}}}'), 'a.json'))
        .rows,
    ).toEqual([
      ['Ann', '1'],
      ['Ben', '2'],
    ])
    const found = await take(utf8('{"people":[{"name":"Ann","phone":"1"},17,{"name":"Ben"}]}'), 'a.json')
    expect(found.rows).toHaveLength(2)
    expect(found.held).toEqual(['2 broken-item'])
  })

  it('an array of objects, nested keys joined with dots', async () => {
    const found = await take(
      utf8(
        '[{"name":"Ann","phones":["+44 7911 204481","+44 7911 204482"],"at":{"city":"York"}},{"name":"Ben","x":true}]',
      ),
      'a.json',
    )
    expect(found).toMatchObject({ format: 'json', headings: ['name', 'phones.0', 'phones.1', 'at.city', 'x'] })
    expect(found.rows[1]).toEqual(['Ben', '', '', '', 'true'])
  })

  it('an object that holds the array', async () => {
    expect(
      (await take(utf8('{"page":1,"data":[{"name":"Ann","phone":"1"},{"name":"Ben","phone":"2"}]}'), 'a.json')).rows,
    ).toHaveLength(2)
  })

  it('one object a line; a line that is none is held', async () => {
    const found = await take(utf8('{"name":"Ann","phone":"1"}\n{broken\n{"name":"Ben"}\n'), 'a.ndjson')
    expect(found).toMatchObject({
      format: 'ndjson',
      rows: [
        ['Ann', '1'],
        ['Ben', ''],
      ],
      held: ['2 broken-item'],
    })
  })

  it('text pasted from a spreadsheet', async () => {
    expect(await take(utf8('Name\tPhone\nAnn\t020 7946 1234\n'), 'pasted.txt')).toMatchObject({
      format: 'tsv',
      delimiter: '\t',
    })
  })
})

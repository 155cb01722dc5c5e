import { describe, expect, it } from '@jest/globals'
import fc from 'fast-check'
import { type Finding, harvest, TAKEN_FROM } from '../../src/harvest'

const page = (body: string, head = '') =>
  `<!doctype html><html lang="de"><head>${head}</head><body>${body}</body></html>`
const findingsIn = (body: string, more: { head?: string; url?: string; country?: string } = {}): readonly Finding[] =>
  harvest(page(body, more.head), { url: more.url ?? 'https://heron.example/kontakt', country: more.country ?? null })
    .findings
const taken = (...args: Parameters<typeof findingsIn>): string[] =>
  findingsIn(...args).flatMap(({ value, confidence }) => (confidence >= TAKEN_FROM ? value : []))

describe('numbers on a page', () => {
  it.each<[string, string, string[]]>([
    ['behind a word for telephone', '<p>Tel.: 030 5557 7012</p>', ['+493055577012']],
    ['split by mark-up', '<p>Telefon: <b>030</b> <span>55</span><span>57</span>-<i>7012</i></p>', ['+493055577012']],
    ['below its word', '<p>Telefon:<br>030 55577012</p>', ['+493055577012']],
    ['in a link to dial', '<a href="tel:+49-30-55577012">Rufen Sie an</a>', ['+493055577012']],
    ['in a link of another shape', '<a href="tel:%2B49%2030%2055577012">x</a>', ['+493055577012']],
    ['in the cell beside its word', '<table><tr><td>Telefon</td><td>030 55577012</td></tr></table>', ['+493055577012']],
    [
      'under the head of its column',
      '<table><tr><th>Ort</th><th>Telefon</th></tr><tr><td>Berlin</td><td>030 55577012</td></tr></table>',
      ['+493055577012'],
    ],
    ['in a list of terms', '<dl><dt>Rezeption</dt><dd>030 55577012</dd></dl>', ['+493055577012']],
    [
      'in a caption',
      '<figure><img src="x.png"><figcaption>Buchung: 030 55577012</figcaption></figure>',
      ['+493055577012'],
    ],
    ['from abroad, without a word', '<p>Wir sind da: +44 1665 555018</p>', ['+441665555018']],
    ['two behind each other', '<p>Tel. 030 55577012, mobil 0171 5557701</p>', ['+493055577012', '+491715557701']],
    ['of telephone and fax', '<p>Tel./Fax: 030 55577012</p>', ['+493055577012']],
    [
      'behind one letter',
      '<p>T: 030 55577012 | F: 030 55577013 | M. 0171 5557701</p>',
      ['+493055577012', '+491715557701'],
    ],
    ['behind a sign', '<p>☎ 030 55577012</p>', ['+493055577012']],
    [
      'of a service',
      '<p>Customer service: 030 55577012. To order call 030 55577014</p>',
      ['+493055577012', '+493055577014'],
    ],
    ['before its word', '<p>030 55577012 (Rezeption)</p>', ['+493055577012']],
    ['beside a fax line', '<p>Tel. 030 55577012 / Fax 030 55577013</p>', ['+493055577012']],
    ['with its code in brackets', '<p>Telefon +49 (0)30 55577012</p>', ['+493055577012']],
  ])('%s', (_, body, values) => expect(taken(body)).toEqual(values))

  it.each<[string, string]>([
    ['an order', '<p>Bestellnummer: 030 55577012</p>'],
    ['a tax number', '<p>USt-IdNr. DE305557701, Steuernummer: 30/555/77012</p>'],
    ['a bank account', '<p>IBAN: DE89 3704 0044 0532 0130 00, Konto 0305557701</p>'],
    ['a customer', '<p>Customer no. 030 55577012, Kunden-Nr: 030 55577013</p>'],
    ['a company', '<p>Company number 03055577012; Handelsregister HRB 0305557</p>'],
    ['a reference', '<p>Ref: 030 55577012, order number 030 55577013</p>'],
    ['a date', '<p>Seit 01.02.1998 bis 31.12.2026</p>'],
    ['hours', '<p>Geöffnet 09:00-17:30, 10.00 - 18.00</p>'],
    ['coordinates', '<p>GPS: 52.5200066, 13.4049540</p>'],
    ['a price', '<p>ab 1.290.000 € oder $ 5557701234</p>'],
    ['a fax line', '<p>Fax: 030 55577013</p>'],
    ['a fax line in a cell', '<table><tr><td>Telefax</td><td>030 55577013</td></tr></table>'],
    ['a number glued to letters', '<p>Artikel AB030555770129, datei_0305557701.pdf</p>'],
    ['years', '<p>Copyright 1998 - 2026</p>'],
    ['an address of a machine', '<p>192.168.100.200</p>'],
    ['what nobody sees', '<div hidden>Tel. 030 55577012</div><script>var t = "030 55577012"</script>'],
    ['a comment', '<!-- Tel. 030 55577012 -->'],
    ['a run of digits that says nothing', '<p>305557701234567890123</p>'],
  ])('%s is none', (_, body) => expect(taken(body)).toEqual([]))

  it('are those that the page itself marks', () => {
    const data = {
      '@context': 'https://schema.org',
      '@graph': [
        {
          '@type': 'LodgingBusiness',
          name: 'Heron Lodge',
          telephone: ['01665 555018', '+44 1665 555019'],
          email: 'mailto:stay@heron.example',
          openingHours: 'Mo-Fr 09:00-17:00',
          address: {
            '@type': 'PostalAddress',
            streetAddress: '1 Quay',
            addressLocality: 'Alnwick',
            postalCode: 'NE66 1AA',
            addressCountry: 'GB',
          },
        },
      ],
    }
    const head = `<script type="application/ld+json">${JSON.stringify(data)}</script>`
    const found = harvest(page('', head), { url: 'https://heron.example' })
    expect(found.findings.map(({ value, how }) => [value, how])).toEqual([
      ['+441665555018', 'structured-data'],
      ['+441665555019', 'structured-data'],
      ['stay@heron.example', 'structured-data'],
    ])
    expect(found.business).toEqual({
      name: 'Heron Lodge',
      address: '1 Quay, NE66 1AA, Alnwick, GB',
      openingHours: ['Mo-Fr 09:00-17:00'],
    })
  })

  it('are those of microdata', () => {
    const body =
      '<div itemscope itemtype="https://schema.org/Hotel"><h1 itemprop="name">Heron</h1><span itemprop="telephone" content="+441665555018">call</span></div>'
    const { findings, business } = harvest(page(body), { url: 'https://heron.example' })
    expect(findings).toMatchObject([{ value: '+441665555018', how: 'structured-data' }])
    expect(business).toMatchObject({ name: 'Heron' })
  })

  it('are each told once, as it was found best, and surer where found in several ways', () => {
    const body = '<p>Tel. 030 55577012</p><a href="tel:+493055577012">030 55577012</a><p>030/55577012</p>'
    const found = findingsIn(body)
    expect(found).toHaveLength(1)
    expect(found[0]).toMatchObject({ how: 'link', value: '+493055577012' })
    expect(found[0]?.confidence).toBeGreaterThan(0.98)
  })

  it('have a short quotation of where they stand', () => {
    const words = 'Lorem ipsum dolor sit amet. '.repeat(10)
    const [found] = findingsIn(`<p>${words}Tel. 030 55577012. ${words}</p>`)
    expect(found?.quote).toContain('Tel. 030 55577012')
    expect(found?.quote.length).toBeLessThan(120)
  })

  it.each<[string, { head?: string; url?: string; country?: string }, string]>([
    ['the caller', { country: 'GB', url: 'https://heron.de' }, '+441665555018'],
    ['the ending of its domain', { url: 'https://www.heron.co.uk/x' }, '+441665555018'],
  ])('are read as of the country of %s', (_, more, value) =>
    expect(taken('<p>Phone: 01665 555018</p>', more)).toEqual([value]),
  )
})

describe('addresses on a page', () => {
  it.each<[string, string, string[]]>([
    ['in a link', '<a href="mailto:Info%40heron.example?subject=Hi">Schreiben</a>', ['info@heron.example']],
    ['in text', '<p>Mail: <b>info</b>@heron.example.</p>', ['info@heron.example']],
    ['written out', '<p>info (at) heron (dot) example</p>', ['info@heron.example']],
    [
      'written out in other brackets',
      '<p>info [at] heron.example, buero(ät)heron.example</p>',
      ['info@heron.example', 'buero@heron.example'],
    ],
    ['of a file', '<p>logo@2x.png</p>', []],
    ['of nobody', '<p>name@heron.example</p>', []],
  ])('%s', (_, body, values) => expect(taken(body)).toEqual(values))
})

describe('any page', () => {
  const piece = fc.constantFrom(
    '<p>',
    '</p>',
    '<td>',
    '<table>',
    '</tr>',
    '<br>',
    'Tel. ',
    '030 55577012',
    '+44 1665 555018',
    '<a href="tel:1">',
    '<script>',
    '<script type="application/ld+json">{"telephone":[',
    '</script>',
    '(at)',
    'info@heron.example',
    ' ',
    '0',
    '-',
    '&amp;',
    '<!--',
    '\u0000',
  )
  it('is read, however broken; each value once, each confidence between none and sure', () =>
    fc.assert(
      fc.property(fc.array(piece, { maxLength: 60 }), (pieces) => {
        const { findings } = harvest(pieces.join(''), { url: 'https://heron.example' })
        const values = findings.map(({ kind, value }) => `${kind} ${value}`)
        expect(new Set(values).size).toBe(values.length)
        for (const { confidence } of findings) {
          expect(confidence).toBeGreaterThan(0)
          expect(confidence).toBeLessThanOrEqual(1)
        }
      }),
    ))
})

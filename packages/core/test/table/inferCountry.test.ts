import { describe, expect, it } from '@jest/globals'
import { inferCountry } from '../../src/table'

const columnsOf = (text: string) => {
  const [headings = [], ...rows] = text.split('\n').map((line) => line.split(';'))
  return headings.map((heading, i) => ({ heading, cells: rows.map((row) => row[i] ?? '') }))
}

describe('the country of a list', () => {
  it('is not outweighed by how many numbers alike another plan takes too', () => {
    const rows = Array.from({ length: 60 }, (_, i) => `P${i};0171 ${5_550_000 + i * 7};24103;Kiel`)
    expect(inferCountry(columnsOf(['Vorname;Telefon;PLZ;Ort', ...rows].join('\n')))).toMatchObject({ suggested: 'DE' })
    // Nothing but the numbers: both plans take them.
    const bare = ['Phone', ...rows.map((row) => row.split(';')[1] ?? '')].join('\n')
    expect(inferCountry(columnsOf(bare)).suggested).not.toBe('BD')
  })

  it.each<[string, string]>([
    [
      'US',
      'Name;Phone;City;State;Zip\nJo Mill;415-555-2671;San Rafael;CA;94901\nAmy Ash;(305) 555-8123;Miami;FL;33101',
    ],
    ['US', 'Phone\n415-555-2671\n(305) 555-8123\n6175553344'],
    [
      'CA',
      'Name;Phone;Province;Postal code\nA;416-555-2671;ON;M5V 2T6\nB;604 555 8123;BC;V6B 1A1\nC;514-555-3344;QC;H2Y 1C6',
    ],
    ['GB', 'Full name;Mobile\nA B;07400 123456\nC D;020 7946 1234\nE F;01865 512345'],
    ['DE', 'Vorname;Nachname;Telefon;PLZ\nA;B;089 1234567;80331\nC;D;0171 2345678;10115\nE;F;030/98765432;20095'],
    ['AT', 'Firma;Telefon;Ort\nA GmbH;0664 1234567;Graz\nB;01 5123456;Wien\nC;0662 845678;Salzburg'],
    ['CH', 'Firma;Telefon;PLZ\nA AG;044 123 45 67;8001\nB;079 123 45 67;3011\nC;031 987 65 43;6003'],
    ['FR', 'Nom;Téléphone\nA;06 12 34 56 78\nB;01 44 55 66 77\nC;04 91 22 33 44'],
    ['ES', 'Nombre;Telefono\nA;612 345 678\nB;91 234 56 78\nC;934567890'],
    ['IT', 'Nome;Telefono;Provincia\nA;347 1234567;MI\nB;02 12345678;RM\nC;055 2345678;FI'],
    ['NL', 'Naam;Telefoon;Postcode\nA;06-12345678;1012 AB\nB;020 1234567;3511 KX\nC;010-4567890;3011 AA'],
    ['DK', 'Navn;Telefon\nA;20 12 34 56\nB;33 12 34 56\nC;86 12 34 56'],
    ['SE', 'Namn;Mobil;Ort\nA;070-123 45 67;Lund\nB;08-123 456 78;Stockholm\nC;031-12 34 56;Göteborg'],
    ['PL', 'Imię;Telefon;Kod\nA;601 234 567;00-950\nB;22 123 45 67;31-042\nC;512345678;80-001'],
    ['AU', 'Name;Phone;State\nA;0412 345 678;NSW\nB;02 9876 5432;VIC\nC;(03) 9123 4567;QLD'],
    ['BR', 'Nome;Celular\nA;(11) 98765-4321\nB;(21) 99876-5432\nC;11 3456-7890'],
    ['MX', 'Nombre;Celular;Ciudad\nA;55 1234 5678;Puebla\nB;33 1234 5678;Guadalajara\nC;81 8123 4567;Monterrey'],
    ['JP', '氏名;電話番号\nA;03-5321-7788\nB;090-8412-6634\nC;06-6341-2290'],
    ['GB', 'Name;Phone\nA;+44 7911 123456\nB;+44 20 7946 1234'],
    ['DE', 'Name;Phone;Country\nA;0171 2345678;Germany\nB;089 1234567;Deutschland'],
  ])('is %s: %#', (country, text) => {
    const { suggested, confidence, why } = inferCountry(columnsOf(text))
    expect([suggested, why]).toEqual([country, expect.stringContaining(':')])
    expect(confidence).toBeGreaterThanOrEqual(0.8)
    expect(confidence).toBeLessThanOrEqual(1)
  })

  it.each<[string, string, RegExp]>([
    ['nothing tells', 'Name;E-mail\nA;a@brightmail.example\nB;b@hearth.example', /Nothing in this file tells/],
    ['it has no rows', 'Name;Phone', /Nothing/],
    [
      'rows differ',
      'Name;Phone\nA;07400 123456\nB;07400 123457\nC;07400 123458\nD;612 345 678\nE;934 567 890\nF;612 345 679\nG;934 567 891',
      /./,
    ],
    ['a handful of numbers fits several', 'Name;Mobile\nA;98450 43210\nB;9822047719\nC;7021634850', /It may be/],
    ['codes differ', 'Name;Phone\nA;+44 7911 123456\nB;+49 171 2345678\nC;+33 6 12 34 56 78', /rows differ/],
    ['each row says its own', 'Name;Phone;Country\nA;07400 123456;UK\nB;0171 2345678;Germany', /Each row says its own/],
  ])('is not said where %s', (_, text, why) => {
    const inferred = inferCountry(columnsOf(text))
    expect(inferred.suggested).toBeNull()
    expect(inferred.why).toMatch(why)
  })

  it('is the same whatever the order of rows', () => {
    const rows = [
      'A;07400 123456;SW1A 1AA',
      'B;020 7946 1234;M1 1AE',
      'C;01865 512345;OX1 2JD',
      'D;0113 245 6120;LS1 4AP',
    ]
    const of = (some: readonly string[]) => inferCountry(columnsOf(['Name;Phone;Postcode', ...some].join('\n')))
    expect(of([...rows].reverse())).toEqual(of(rows))
  })

  it('is not turned by one number that is mistyped', () => {
    const text =
      'Name;Phone\nA;07400 123456\nB;020 7946 1234\nC;01865 512345\nD;07934 556120\nE;0113 245 6120\nF;07911 2044'
    expect(inferCountry(columnsOf(text)).suggested).toBe('GB')
  })
})

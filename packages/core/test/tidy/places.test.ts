import { describe, expect, it } from '@jest/globals'
import {
  compileRoutine,
  mendEmail,
  proposeReadable,
  proposeRoutine,
  readRegion,
  takeLegalForm,
  tidyPostalCode,
} from '../../src/tidy'

describe('regions written short, old or with full stops', () => {
  it.each([
    ['Calif.', 'US', 'US-CA'],
    ['Mass.', 'US', 'US-MA'],
    ['N.Y.', 'US', 'US-NY'],
    ['N. Y.', 'US', 'US-NY'],
    ['Fla', 'US', 'US-FL'],
    ['Penna.', 'US', 'US-PA'],
    ['W. Va.', 'US', 'US-WV'],
    ['D.C.', 'US', 'US-DC'],
    ['Tex.', 'US', 'US-TX'],
    ['N. Carolina', 'US', 'US-NC'],
    ['Ont.', 'CA', 'CA-ON'],
    ['P.Q.', 'CA', 'CA-QC'],
    ['B.C.', 'CA', 'CA-BC'],
    ['Newfoundland', 'CA', 'CA-NL'],
    ['N.S.W.', 'AU', 'AU-NSW'],
    ['Qld.', 'AU', 'AU-QLD'],
    ['NRW', 'DE', 'DE-NW'],
    ['Bad.-Württ.', 'DE', 'DE-BW'],
    ['Ba-Wü', 'DE', 'DE-BW'],
    ['Meck-Pomm', 'DE', 'DE-MV'],
    ['Bavaria', 'DE', 'DE-BY'],
    ['NÖ', 'AT', 'AT-3'],
    ['Stmk.', 'AT', 'AT-6'],
    ['Euskadi', 'ES', 'ES-PV'],
    ['PACA', 'FR', 'FR-PAC'],
    ['Midi-Pyrénées', 'FR', 'FR-OCC'],
    ['Lombardy', 'IT', 'IT-25'],
    ['N-Holland', 'NL', 'NL-NH'],
    ['CDMX', 'MX', 'MX-CMX'],
    ['D.F.', 'MX', 'MX-CMX'],
    ['Orissa', 'IN', null],
    ['U.P.', 'IN', 'IN-UP'],
  ])('%s in %s', (text, country, code) => {
    if (code === null) expect(readRegion(text, country)).toMatch(/^IN-O[RD]$/)
    else expect(readRegion(text, country)).toBe(code)
  })

  it.each([
    ['Calif.', 'DE'],
    ['NRW', 'US'],
    ['Somewhere', 'US'],
    ['U.', 'US'],
    ['Mars.', 'US'],
  ])('%s in %s is none', (text, country) => expect(readRegion(text, country)).toBeNull())
})

describe('the zero of a postal code', () => {
  it.each([
    ['2134', 'US', 'Massachusetts', 'Boston', '02134'],
    ['7030', 'US', 'NJ', '', '07030'],
    ['4109', 'DE', 'Sachsen', 'Leipzig', '04109'],
    ['6000', 'FR', '', 'Nice', '06000'],
    ['8001', 'ES', '', 'Barcelona', '08001'],
    ['2134', 'US', '', '', '02134'],
  ])('%s in %s, %s %s', (written, country, region, town, code) =>
    expect(tidyPostalCode(written, country, { region: readRegion(region, country) ?? '', town })).toMatchObject({
      code,
      repair: 'zero',
    }),
  )

  it.each([
    ['2134', 'US', 'California', '', '02134'],
    ['9410', 'US', '', 'San Francisco', '09410'],
    ['8033', 'DE', 'Bayern', 'München', '08033'],
    ['1075', 'DE', '', 'Hamburg', '01075'],
    ['7500', 'FR', '', 'Paris', '07500'],
    ['2801', 'ES', '', 'Madrid', '02801'],
  ])('is not put before %s in %s beside %s %s', (written, country, region, town, doubted) =>
    expect(tidyPostalCode(written, country, { region: readRegion(region, country) ?? '', town })).toMatchObject({
      code: written,
      repair: null,
      doubted,
    }),
  )

  it('waits in the queue where state and town contradict it', () => {
    const mapping = ['city', 'region', 'postal-code'] as const
    const tidier = compileRoutine(
      proposeRoutine(mapping),
      { mapping, headings: ['Town', 'State', 'Zip'] },
      { defaultCountry: 'US' },
    )
    expect(tidier.tidy(['Fresno', 'Calif.', '9370']).hand).toMatchObject([
      { raw: '9370', problem: 'zero-contradicted', fixes: [{ text: '09370' }] },
    ])
    expect(tidier.tidy(['Boston', 'Mass.', '2134'])).toMatchObject({ values: { postalCode: '02134' }, hand: [] })
  })
})

describe('legal forms', () => {
  it.each([
    ['Nowak Sp. z o.o.', 'Nowak', 'Sp. z o.o.'],
    ['Nová s.r.o.', 'Nová', 's.r.o.'],
    ['Nová spol. s r.o.', 'Nová', 'spol. s r.o.'],
    ['Kiss Kft.', 'Kiss', 'Kft.'],
    ['Kiss Zrt.', 'Kiss', 'Zrt.'],
    ['Horvat d.o.o.', 'Horvat', 'd.o.o.'],
    ['Virtanen Oy', 'Virtanen', 'Oy'],
    ['Berg ApS', 'Berg', 'ApS'],
    ['Åkesson AB', 'Åkesson', 'AB'],
    ['Tamm OÜ', 'Tamm', 'OÜ'],
    ['Rossi S.r.l.s.', 'Rossi', 'S.r.l.s.'],
    ['Ruiz S.L.U.', 'Ruiz', 'S.L.U.'],
    ['Ruiz S.A. de C.V.', 'Ruiz', 'S.A. de C.V.'],
    ['Lima Ltda.', 'Lima', 'Ltda.'],
    ['Lima Unipessoal, Lda.', 'Lima', 'Unipessoal, Lda.'],
    ['Kaya A.Ş.', 'Kaya', 'A.Ş.'],
    ['Kaya Ltd. Şti.', 'Kaya', 'Ltd. Şti.'],
    ['Sen Pvt. Ltd.', 'Sen', 'Pvt. Ltd.'],
    ['Ash Pty Ltd', 'Ash', 'Pty Ltd'],
    ['Byrne Teoranta', 'Byrne', 'Teoranta'],
    ['Byrne DAC', 'Byrne', 'DAC'],
    ['Vaubert SASU', 'Vaubert', 'SASU'],
    ['Peeters BVBA', 'Peeters', 'BVBA'],
    ['Krug PartG mbB', 'Krug', 'PartG mbB'],
    ['Krug Ges.m.b.H.', 'Krug', 'Ges.m.b.H.'],
    ['SARL Vaubert', 'Vaubert', 'SARL'],
    ['ООО «Ромашка»', 'Ромашка', 'ООО'],
    ['UAB Kazlas', 'Kazlas', 'UAB'],
    ['株式会社山田', '山田', '株式会社'],
    ['山田有限会社', '山田', '有限会社'],
    ['PT Sumber Tbk', 'Sumber', 'Tbk, PT'],
    ['Linde GmbH AG', 'Linde', 'AG, GmbH'],
    ['Петров ООД', 'Петров', 'ООД'],
  ])('%s', (company, name, form) => expect(takeLegalForm(company)).toEqual({ name, form }))

  it.each([
    'Pt. Reyes Books',
    'Sas Travel',
    'Sci-fi Books',
    'Company',
    'Unlimited',
    'Earl Grey Teas',
    'Firm',
    'Ag Supplies',
  ])('leaves %s whole', (company) => expect(takeLegalForm(company)).toEqual({ name: company, form: '' }))
})

describe('e-mails', () => {
  it.each([
    ['anna{at}krug.example', 'anna@krug.example'],
    ['anna [at] krug [dot] example', 'anna@krug.example'],
    ['anna arroba krug.example', 'anna@krug.example'],
    ['anna(ät)krug.example', 'anna@krug.example'],
    ['anna＠krug.example', 'anna@krug.example'],
    ['anna at krug dot example', 'anna@krug.example'],
    ['E-Mail: anna (at) krug.example', 'anna@krug.example'],
  ])('mends %s', (was, is) => expect(mendEmail(was)).toBe(is))

  it.each([
    ['anna@krug;example', 'anna@krug.example'],
    ['anna@krug:example', 'anna@krug.example'],
    ['anna@krug example', 'anna@krug.example'],
    ['anna@krug_example', 'anna@krug.example'],
    ['anna#krug.example', 'anna@krug.example'],
  ])('proposes for %s', (was, is) => expect(proposeReadable(was)).toBe(is))

  it.each(['anna@krug.example', 'ask at reception', 'none', '@', 'anna', 'a@b', '#4'])(
    'proposes nothing for %s',
    (cell) => expect(proposeReadable(cell)).toBeNull(),
  )

  it.each([
    ['anna krug@krug.example', ['anna.krug@krug.example', 'annakrug@krug.example', 'krug@krug.example']],
    ['  anna  krug@krug.example ', ['anna.krug@krug.example', 'annakrug@krug.example', 'krug@krug.example']],
  ])('asks which it is where a space parts %s', (cell, texts) => {
    const mapping = ['email'] as const
    const { emails, hand } = compileRoutine(proposeRoutine(mapping), { mapping, headings: ['Mail'] }).tidy([cell])
    expect([emails, hand[0]?.fixes.map(({ text }) => text)]).toEqual([[], texts])
    expect(hand[0]?.fixes.map(({ kind }) => kind)).toEqual(['parts-joined', 'parts-joined', 'part'])
  })

  it.each([
    ['anna anna.krug@krug.example', 'anna.krug@krug.example'],
    ['team info@krug.example', 'info@krug.example'],
    ['mail krug@krug.example', 'krug@krug.example'],
    ['Anna Krug krug@krug.example', 'krug@krug.example'],
    ['a@krug.example b@krug.example', 'a@krug.example'],
  ])('takes the word before %s for one', (cell, address) => {
    const mapping = ['email'] as const
    const { emails } = compileRoutine(proposeRoutine(mapping), { mapping, headings: ['Mail'] }).tidy([cell])
    expect(emails[0]?.address).toBe(address)
  })
})

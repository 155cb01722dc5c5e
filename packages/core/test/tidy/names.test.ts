import { describe, expect, it } from '@jest/globals'
import {
  type ChangeCode,
  compileRoutine,
  inSpokenOrder,
  isCompany,
  mendNameCase,
  proposeRoutine,
  splitName,
  takeAsides,
  takeNameApart,
  twoPeople,
  withoutDecorations,
} from '../../src/tidy'

const tidier = () =>
  compileRoutine(proposeRoutine(['full-name', 'company', 'title']), {
    mapping: ['full-name', 'company', 'title'],
    headings: ['Name', 'Firm', 'Job'],
  })
const tidied = (name: string, company = '', title = '') => {
  const one = tidier()
  const cells = [name, company, title]
  return { ...one.tidy(cells).values, extras: Object.fromEntries(one.extrasOf(cells)) }
}

describe('a name of which one word shouts or whispers', () => {
  it.each([
    ['Maren OLDERSHAW', 'Maren Oldershaw'],
    ['OLDERSHAW Maren', 'Oldershaw Maren'],
    ['Jean-Luc VAUBERT-PETIT', 'Jean-Luc Vaubert-Petit'],
    ["Hamish O'HARA", "Hamish O'Hara"],
    ['Ronald McDONALD', 'Ronald McDonald'],
    ['Jean d’ARCY', 'Jean d’Arcy'],
    ['Ana DeSANTIS', 'Ana DeSantis'],
    ['Jan VAN DER BERG', 'Jan van der Berg'],
    ['Ana DE LA CRUZ', 'Ana de la Cruz'],
    ['Łukasz WÓJCIK', 'Łukasz Wójcik'],
    ['ŁUKASZ WÓJCIK', 'Łukasz Wójcik'],
    ['Иван ПЕТРОВ', 'Иван Петров'],
    ['ИВАН ПЕТРОВ', 'Иван Петров'],
    ['Γιώργος ΠΑΠΑΣ', 'Γιώργος Παπας'],
    ['İSMAİL YILDIZ', 'İsmail Yıldız'],
    ['Şule ÇETİN', 'Şule Çetin'],
    ['maren Oldershaw', 'Maren Oldershaw'],
    ['Maren oldershaw', 'Maren Oldershaw'],
    ['Zoë ÅKESSON', 'Zoë Åkesson'],
    ['Noémie D’ARTAGNAN', 'Noémie D’Artagnan'],
    ['Dvořák JIŘÍ', 'Dvořák Jiří'],
  ])('%s', (was, is) => expect(mendNameCase(was)).toBe(is))

  it.each([
    'Ann McAllister',
    'JP Morton',
    'Ann HR',
    'J.R.R. Kestle',
    'James Whitlock III',
    'Ludwig van Aken',
    'DeShawn Ito',
    'Ana de la Cruz',
    'Ng LI',
    'Ann BLT',
    'Jean d’Aubert',
    'LaToya MacGowan',
    '李 小龍',
  ])('leaves %s alone', (name) => expect(mendNameCase(name)).toBe(name))

  it('says the same when asked again', () => {
    for (const name of ['Jan VAN DER BERG', 'ŁUKASZ WÓJCIK', 'maren oldershaw', 'Иван ПЕТРОВ'])
      expect(mendNameCase(mendNameCase(name))).toBe(mendNameCase(name))
  })
})

describe('order and suffixes', () => {
  it.each([
    ['Hill, Ann, Jr.', 'Ann Hill Jr.'],
    ['Hill, Jr., Ann', 'Ann Hill Jr.'],
    ['Hill Jr., Ann', 'Ann Hill Jr.'],
    ['VAN DER BERG, Jan', 'Jan VAN DER BERG'],
    ['Ann Hill, Jr.', 'Ann Hill Jr.'],
    ['Hill, Ann, III', 'Ann Hill III'],
  ])('%s', (was, is) => expect(inSpokenOrder(was)).toBe(is))

  it.each(['Ann Hill', 'Hill, Ann, Ben, Cy', 'Hill, Ann, York'])('leaves %s alone', (name) =>
    expect(inSpokenOrder(name)).toBe(name),
  )

  it.each([
    ['Ann Hill Jr.', 'Ann', 'Hill Jr.'],
    ['James Whitlock III', 'James', 'Whitlock III'],
    ['Ann van den Berg', 'Ann', 'van den Berg'],
    ['Ana dos Santos', 'Ana', 'dos Santos'],
    ['Jan van der Berg Sr', 'Jan', 'van der Berg Sr'],
    ['Junior Kestle', 'Junior', 'Kestle'],
    ['Ann Senior', 'Ann', 'Senior'],
  ])('%s is %s and %s', (full, given, family) => expect(splitName(full)).toEqual({ given, family }))
})

describe('titles and letters', () => {
  it.each([
    ['Univ.-Prof. Dr. Ilse Krug', 'Ilse Krug', 'Univ.-Prof. Dr.', ''],
    ['Dr.-Ing. Ilse Krug', 'Ilse Krug', 'Dr.-Ing.', ''],
    ['Dr. med. dent. Ilse Krug', 'Ilse Krug', 'Dr. med. dent.', ''],
    ['Dipl.-Kfm. Jan Krug', 'Jan Krug', 'Dipl.-Kfm.', ''],
    ['Herrn Dr. Jan Krug', 'Jan Krug', 'Herrn Dr.', ''],
    ['Mgr. Jana Nová', 'Jana Nová', 'Mgr.', ''],
    ['MUDr. Jana Nová, CSc.', 'Jana Nová', 'MUDr.', 'CSc.'],
    ['dr hab. inż. Anna Lis', 'Anna Lis', 'dr hab. inż.', ''],
    ['Señora Ana Ruiz', 'Ana Ruiz', 'Señora', ''],
    ['Dott.ssa Anna Rossi', 'Anna Rossi', 'Dott.ssa', ''],
    ['Mevrouw drs. Anna Bakker', 'Anna Bakker', 'Mevrouw drs.', ''],
    ['Eng. João Lima', 'João Lima', 'Eng.', ''],
    ['Sayın Ali Kaya', 'Ali Kaya', 'Sayın', ''],
    ['г-н Иван Петров', 'Иван Петров', 'г-н', ''],
    ['Capt. Ann Hill', 'Ann Hill', 'Capt.', ''],
    ['Dr.Ann Hill', 'Ann Hill', 'Dr.', ''],
    ['Ann Hill, Ph.D., M.B.A.', 'Ann Hill', '', 'Ph.D., M.B.A.'],
    ['Ann Hill MBChB FRCS', 'Ann Hill', '', 'MBChB, FRCS'],
    ['Ann Hill, SHRM-CP', 'Ann Hill', '', 'SHRM-CP'],
    ['Ann Hill BSc (Hons)', 'Ann Hill', '', 'BSc, (Hons)'],
    ['田中 太郎 様', '田中 太郎', '様', ''],
    ['김민수님', '김민수', '님', ''],
    ['Mr. & Mrs. Hill', 'Hill', 'Mr. & Mrs.', ''],
    ['Mr and Mrs John Hill', 'John Hill', 'Mr and Mrs', ''],
    ['Herr und Frau Krug', 'Krug', 'Herr und Frau', ''],
    ['M. et Mme Petit', 'Petit', 'M. et Mme', ''],
    ['Dr. & Mrs. Ann Hill', 'Ann Hill', 'Dr. & Mrs.', ''],
  ])('%s', (full, name, title, credentials) => expect(takeNameApart(full)).toEqual({ name, title, credentials }))

  it.each([
    'Don Hill',
    'Major Kestle',
    'Ava Hill',
    'Eng Li',
    'Drew Profitt',
    'Misha Bell',
    'Genevieve Ash',
    'Colin Ash',
    'Magda Lis',
    'Panos Papas',
    'Bayo Ade',
    'Mrinal Sen',
    'Ann Do',
    'Frank Ash',
    'Sigrid Ash',
    'Ingrid Ash',
    'Hrafn Ash',
  ])('takes nothing out of %s', (name) => expect(takeNameApart(name)).toEqual({ name, title: '', credentials: '' }))
})

describe('what stands beside a name', () => {
  it.each([
    ['Ann Hill (Sales Manager)', { name: 'Ann Hill', role: 'Sales Manager' }],
    ['Ann Hill | Head of Marketing', { name: 'Ann Hill', role: 'Head of Marketing' }],
    ['Jan Krug [Vertriebsleiter]', { name: 'Jan Krug', role: 'Vertriebsleiter' }],
    ['Jan Krug (Geschäftsführer)', { name: 'Jan Krug', role: 'Geschäftsführer' }],
    ['Léa Petit (gérante)', { name: 'Léa Petit', role: 'gérante' }],
    ['Ana Ruiz (gerente)', { name: 'Ana Ruiz', role: 'gerente' }],
    ['Ann Hill (mornings only)', { name: 'Ann Hill', remark: 'mornings only' }],
    ['Ann Hill (née Cole)', { name: 'Ann Hill', remark: 'née Cole' }],
    ['Ann (Annie) Hill', { name: 'Ann Hill', nickname: 'Annie' }],
    ['Ann "Annie" Hill', { name: 'Ann Hill', nickname: 'Annie' }],
    ['Ann “Annie” Hill', { name: 'Ann Hill', nickname: 'Annie' }],
    ['Ann „Annie“ Hill', { name: 'Ann Hill', nickname: 'Annie' }],
    ["Ann 'Annie' Hill", { name: 'Ann Hill', nickname: 'Annie' }],
    ['Ann "Annie" Hill (owner) | York', { name: 'Ann Hill', nickname: 'Annie', role: 'owner', remark: 'York' }],
  ])('%s', (written, expected) =>
    expect(takeAsides(written)).toEqual({ nickname: '', role: '', remark: '', ...expected }),
  )

  it.each(["Hamish O'Hara", 'Ann D’Arcy Hill', 'Ann Hill', '(Ann Hill)', 'Ann Hill (she/her)', "Ann O'Hara O'Brien"])(
    'leaves %s alone',
    (name) => expect(takeAsides(name)).toEqual({ name, nickname: '', role: '', remark: '' }),
  )

  it('goes to the column it belongs to; a job that is known already stays as a remark', () => {
    expect(tidied('Ann "Annie" Hill (Sales Manager)')).toMatchObject({
      fullName: 'Ann Hill',
      title: 'Sales Manager',
      extras: { Nickname: 'Annie' },
    })
    expect(tidied('Ann Hill (Sales Manager)', '', 'Owner')).toMatchObject({
      fullName: 'Ann Hill',
      title: 'Owner',
      extras: { 'Name remark': 'Sales Manager' },
    })
  })

  it.each([
    ['🌟Ann🌟 Hill', 'Ann Hill'],
    ['𝐀𝐧𝐧 𝐇𝐢𝐥𝐥', 'Ann Hill'],
    ['Ａｎｎ Ｈｉｌｌ', 'Ann Hill'],
    ['*Ann* _Hill_', 'Ann Hill'],
    ['Ann 🇬🇧 Hill', 'Ann Hill'],
  ])('ornaments: %s', (was, is) => expect(withoutDecorations(was)).toBe(is))
})

describe('companies among the names', () => {
  it.each([
    'Kestle Bakery',
    'Linde GmbH',
    'Autohaus Krug',
    'Hotel Seeblick',
    'Boulangerie Vaubert',
    'Kestle & Sons',
    'Krug und Söhne',
    'Hill Plumbing Ltd',
    'Vaubert S.A.R.L.',
    'Rossi S.r.l.',
    'Panadería Ruiz',
    'Farmacia Lima',
    'Müller AG',
    'Bakker BV',
    'Oldershaw Solutions',
    'Nowak Sp. z o.o.',
    '株式会社 山田',
    'Kestle Dental',
  ])('%s', (name) => expect(isCompany(name)).toBe(true))

  it.each([
    'Ann Hill',
    'Ann Baker',
    'Kim Se',
    'KIM SE',
    'Ana Sa',
    'Carla Spa',
    'Robert Service',
    'Ann Church',
    'Henry Lodge',
    'Co Ann',
    'Garage',
    'Ann and Ben Hill',
    'Inga As',
    'Marie Sci',
    'Li Ag',
    'Tom Cooper',
    'Ann Miller',
    'Jan Kaufmann',
  ])('%s is a person', (name) => expect(isCompany(name)).toBe(false))

  it('becomes the company, unless another company is named', () => {
    expect(tidied('Linde GmbH')).toMatchObject({ fullName: '', company: 'Linde', extras: { 'Legal form': 'GmbH' } })
    for (const name of ['Hotel Seeblick', 'Bäckerei Krug', 'Kestle Bakery'])
      expect(tidied(name)).toMatchObject({ fullName: '', company: name })
    expect(tidied('Linde GmbH', 'Linde')).toMatchObject({ fullName: '', company: 'Linde' })
    expect(tidied('Kestle Bakery', 'Oldershaw Camping')).toMatchObject({
      fullName: 'Kestle Bakery',
      company: 'Oldershaw Camping',
    })
  })
})

describe('addresses among the names', () => {
  const mapping = ['full-name', 'email'] as const
  const tidier = (leftOut: ReadonlySet<ChangeCode> = new Set()) =>
    compileRoutine(proposeRoutine(mapping), { mapping, headings: ['Name', 'Mail'] }, { leftOut })
  const read = (cells: readonly string[], leftOut: ReadonlySet<ChangeCode> = new Set()) => {
    const { values, emails } = tidier(leftOut).tidy(cells)
    return [values.fullName, ...emails.map(({ address }) => address)]
  }

  it.each([
    [
      ['Ann.Hill@causeway.example', ''],
      ['', 'ann.hill@causeway.example'],
    ],
    [
      ['ann@causeway.example', 'hill@causeway.example'],
      ['', 'hill@causeway.example', 'ann@causeway.example'],
    ],
    [
      ['ann@causeway.example', 'ANN@causeway.example'],
      ['', 'ann@causeway.example'],
    ],
    [
      ['ANN HILL <ann@causeway.example>', ''],
      ['Ann Hill', 'ann@causeway.example'],
    ],
    [
      ['Hill, Ann (ann@causeway.example)', 'ann@causeway.example'],
      ['Ann Hill', 'ann@causeway.example'],
    ],
    [['ann@causeway.example hill@causeway.example', ''], ['Ann@causeway.Example Hill@causeway.Example']],
    [['Ann @ Causeway', ''], ['Ann @ Causeway']],
  ])('%j', (cells, expected) => expect(read(cells)).toEqual(expected))

  it('stay where the repair is left out', () =>
    expect(read(['ann@causeway.example', ''], new Set(['name-email']))[0]).toMatch(/@causeway\.example/i))
})

describe('the name of an account', () => {
  it.each([
    ['anna.krug', 'Anna Krug'],
    ['Jean.Luc.Dupont', 'Jean Luc Dupont'],
    ['J.R. Hill', 'J.R. Hill'],
    ['St. John', 'St. John'],
    ['A.Hill', 'A.Hill'],
  ])('%s is %s', (was, is) => expect(tidied(was).fullName).toBe(is))
})

describe('two people in one cell', () => {
  it.each([
    ['Ann and Ben Hill', 'Ann Hill', 'Ben Hill'],
    ['Ann & Ben Hill', 'Ann Hill', 'Ben Hill'],
    ['Ann Hill and Ben Cole', 'Ann Hill', 'Ben Cole'],
    ['Anna u. Jan Krug', 'Anna Krug', 'Jan Krug'],
    ['Anna und Jan Krug', 'Anna Krug', 'Jan Krug'],
    ['Léa et Luc Petit', 'Léa Petit', 'Luc Petit'],
    ['Ana y Juan Ruiz', 'Ana Ruiz', 'Juan Ruiz'],
    ['Ann Hill / Ben Cole', 'Ann Hill', 'Ben Cole'],
    ['Anna en Jan Bakker', 'Anna Bakker', 'Jan Bakker'],
  ])('%s', (cell, first, second) => expect(twoPeople(cell)).toEqual([first, second]))

  it.each([
    'Ann Hill',
    'José Ortega y Gasset',
    'Hill & Cole',
    'Ramón y Cajal',
    'Andy Hill',
    'Sandra Hill',
    'Ann Hill / 2',
  ])('%s is none', (cell) => expect(twoPeople(cell)).toBeNull())

  it('are told, with both to choose from', () => {
    const { hand } = tidier().tidy(['Ann and Ben Hill', '', ''])
    expect(hand).toMatchObject([{ problem: 'two-people', fixes: [{ text: 'Ann Hill' }, { text: 'Ben Hill' }] }])
    // Parted by a person: one is the contact, the other stays with it.
    const parted = { edits: { 'full-name': 'Ann Hill', 'Second person': 'Ben Hill' }, leftOut: new Set<never>() }
    expect(tidier().tidy(['Ann and Ben Hill', '', ''], parted)).toMatchObject({
      hand: [],
      values: { fullName: 'Ann Hill' },
    })
    expect(tidier().extrasOf(['Ann and Ben Hill', '', ''], parted)).toEqual([['Second person', 'Ben Hill']])
    // Somebody has looked, and they are to stay together.
    const settled = { edits: { 'full-name': 'Ann and Ben Hill' }, leftOut: new Set<never>() }
    expect(tidier().tidy(['Ann and Ben Hill', '', ''], settled).hand).toEqual([])
  })
})

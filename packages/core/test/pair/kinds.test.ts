import { describe, expect, it } from '@jest/globals'
import { type PairInput, pairContacts } from '../../src/pair'

const contact = (more: Partial<PairInput>): PairInput => ({
  fullName: [more.givenName, more.familyName].filter(Boolean).join(' '),
  givenName: '',
  familyName: '',
  company: '',
  domain: '',
  profile: '',
  city: '',
  postalCode: '',
  country: 'GB',
  numbers: [],
  emails: [],
  ...more,
})
const mobile = (tail: string) => ({ e164: `+44791120${tail}`, isMobile: true })
const landline = (tail: string) => ({ e164: `+44166555${tail}`, isMobile: false })
const mail = (address: string) => ({ address, isRole: false })

const crowd = Array.from({ length: 80 }, (_, i) =>
  contact({
    givenName: `Wena${String.fromCharCode(97 + (i % 26))}`,
    familyName: `Crowd${String.fromCharCode(97 + (i % 26))}${String.fromCharCode(97 + (i % 9))}`,
    company: `House ${i}`,
    city: `Town ${i % 11}`,
    numbers: [mobile(`5${String(i).padStart(4, '0')}`)],
  }),
)

function judge(...inputs: Partial<PairInput>[]): 'joined' | 'to decide' | 'apart' {
  const { groups, toDecide } = pairContacts([...inputs.map(contact), ...crowd])
  if (groups.some(({ members }) => members.includes(0) && members.includes(1))) return 'joined'
  return [...toDecide].some(({ a, b }) => a === 0 && b === 1) ? 'to decide' : 'apart'
}

const LINE = [mobile('44810')]
const BOX = [mail('zelma.orrick@oxbow.test')]
const ZELMA = { givenName: 'Zelma', familyName: 'Orrick' }

describe('one person in two rows', () => {
  it.each<[string, Partial<PairInput>, Partial<PairInput>]>([
    ['a tag in the address', { ...ZELMA, emails: BOX }, { ...ZELMA, emails: [mail('zelma.orrick+shop@oxbow.test')] }],
    ['an address without its dots', { ...ZELMA, emails: BOX }, { ...ZELMA, emails: [mail('zelmaorrick@oxbow.test')] }],
    [
      'another family name on one mobile',
      { ...ZELMA, numbers: LINE },
      { givenName: 'Zelma', familyName: 'Quade', numbers: LINE },
    ],
    [
      'another family name with one address',
      { ...ZELMA, emails: BOX },
      { givenName: 'Zelma', familyName: 'Quade', emails: BOX },
    ],
    [
      'a familiar form',
      { givenName: 'Michael', familyName: 'Orrick', numbers: LINE },
      { givenName: 'Mike', familyName: 'Orrick', numbers: LINE },
    ],
    [
      'a familiar form of another language',
      { givenName: 'Katarzyna', familyName: 'Orrick', numbers: LINE },
      { givenName: 'Kasia', familyName: 'Orrick', numbers: LINE },
    ],
    [
      'a key hit twice in a short name',
      { givenName: 'Ian', familyName: 'Orrick', numbers: LINE },
      { givenName: 'Iann', familyName: 'Orrick', numbers: LINE },
    ],
    ['a slip in every word', { ...ZELMA, emails: BOX }, { givenName: 'Zlema', familyName: 'Orrcik', emails: BOX }],
    [
      'a letter that was lost',
      { ...ZELMA, numbers: LINE },
      { givenName: 'Zelma', familyName: 'Orr?ck', numbers: LINE },
    ],
    [
      'one house and one birth date',
      { ...ZELMA, street: '4 Lantern Street', birthDate: '1971-03-05' },
      { ...ZELMA, street: 'Lantern St. 4', birthDate: '1971-03-05' },
    ],
    [
      'two profiles, of which one is old',
      { ...ZELMA, numbers: LINE, profile: 'p.test/in/a' },
      { ...ZELMA, numbers: LINE, profile: 'p.test/in/b' },
    ],
    [
      'two letter boxes with one host',
      { ...ZELMA, numbers: LINE, emails: BOX },
      { ...ZELMA, numbers: LINE, emails: [mail('zorrick@oxbow.test')] },
    ],
  ])('%s', (_, a, b) => expect(judge(a, b)).toBe('joined')) // prettier-ignore
})

describe('two people who look alike', () => {
  const home = { street: '4 Lantern Street', postalCode: 'NE69 7BP', city: 'Bamburgh', numbers: [landline('5018')] }
  it.each<[string, Partial<PairInput>, Partial<PairInput>]>([
    [
      'father and son of one name',
      { ...ZELMA, ...home, birthDate: '1951' },
      { ...ZELMA, ...home, birthDate: '1979-03-05' },
    ],
    [
      'a figure more before the host',
      { ...ZELMA, emails: BOX },
      { ...ZELMA, emails: [mail('zelma.orrick2@oxbow.test')] },
    ],
    ['namesakes of whom nothing else is told', ZELMA, ZELMA],
    [
      'namesakes with one local part at two hosts',
      { ...ZELMA, emails: BOX },
      { ...ZELMA, emails: [mail('zelma.orrick@ferns.test')] },
    ],
    [
      'two of one name with two mobiles and two letter boxes',
      { ...ZELMA, ...home, numbers: LINE, emails: BOX },
      { ...ZELMA, ...home, numbers: [mobile('44811')], emails: [mail('zo@ferns.test')] },
    ],
    ['one landline, two given names', { ...ZELMA, ...home }, { givenName: 'Tarn', familyName: 'Orrick', ...home }],
    [
      'people of two branches',
      { ...ZELMA, company: 'Vane Optics York', city: 'York' },
      { givenName: 'Tarn', familyName: 'Quade', company: 'Vane Optics Leeds', city: 'Leeds' },
    ],
  ])('%s are not joined by themselves', (_, a, b) => expect(judge(a, b)).not.toBe('joined')) // prettier-ignore

  it('two birth dates keep a group apart, whatever a third row says', () => {
    const rows = [
      { ...ZELMA, numbers: LINE, birthDate: '1951-01-01' },
      { ...ZELMA, numbers: LINE },
      { ...ZELMA, numbers: LINE, birthDate: '1979-03-05' },
    ]
    const { groups } = pairContacts([...rows.map(contact), ...crowd])
    expect(groups.filter(({ members }) => members.includes(0) && members.includes(2))).toEqual([])
  })
})

describe('lines and hosts are known by who uses them', () => {
  it('one odd name does not turn a mobile into a shared line, and is shown to a person', () => {
    const rows = [
      { ...ZELMA, numbers: LINE },
      { ...ZELMA, numbers: LINE, city: 'York' },
      { givenName: 'Tarn', familyName: 'Quade', numbers: LINE },
    ]
    const { groups, toDecide } = pairContacts([...rows.map(contact), ...crowd])
    expect(groups.map(({ members }) => members)).toContainEqual([0, 1])
    expect([...toDecide].some(({ b }) => b === 2)).toBe(true)
  })

  it('a host that serves many companies is nobody’s own', () => {
    const neighbours = Array.from({ length: 12 }, (_, i) =>
      contact({
        givenName: `Tarna${String.fromCharCode(97 + i)}`,
        familyName: `Quade${String.fromCharCode(97 + i)}`,
        company: `Firm ${i}`,
        domain: 'oxbow.test',
      }),
    )
    const one = contact({ ...ZELMA, domain: 'oxbow.test', company: 'Alder Works' })
    const other = contact({ ...ZELMA, domain: 'oxbow.test', company: 'Birch Mill' })
    const own = pairContacts([one, other, ...crowd])
    const served = pairContacts([one, other, ...neighbours, ...crowd])
    const companyOf = (paired: typeof own) => paired.explain(0, 1).find(({ field }) => field === 'company')?.level
    expect([companyOf(own), companyOf(served)]).toEqual(['same', 'other'])
  })
})

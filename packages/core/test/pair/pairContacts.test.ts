import { describe, expect, it } from '@jest/globals'
import { createPairing, type Paired, type PairInput, pairContacts } from '../../src/pair'
import { madeUpList } from './madeUp'

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
const mobile = (e164: string) => ({ e164, isMobile: true })
const office = (e164: string) => ({ e164, isMobile: false })
const mail = (address: string) => ({ address, isRole: false })
const MAREN = { givenName: 'Maren', familyName: 'Oldershaw' }

/** Strangers, so that a list is not made of the two in question alone. */
const strangers = Array.from({ length: 60 }, (_, i) =>
  contact({
    givenName: `Given${String.fromCharCode(97 + (i % 26))}`,
    familyName: `Stranger${String.fromCharCode(97 + (i % 26))}${String.fromCharCode(97 + (i % 7))}`,
    company: `House ${i}`,
    city: `Town ${i % 9}`,
    numbers: [mobile(`+4479113${String(i).padStart(5, '0')}`)],
  }),
)

function judge(...inputs: PairInput[]): 'joined' | 'to decide' | 'apart' {
  const { groups, toDecide } = pairContacts([...inputs, ...strangers])
  if (groups.some(({ members }) => members.includes(0) && members.includes(1))) return 'joined'
  return [...toDecide].some(({ a, b }) => a === 0 && b === 1) ? 'to decide' : 'apart'
}

describe('one person, written twice', () => {
  const address = [mail('maren@causeway.example')]
  const line = [mobile('+447911204481')]
  it.each<[string, Partial<PairInput>, Partial<PairInput>]>([
    ['the same name and mobile', { ...MAREN, numbers: line }, { ...MAREN, numbers: line }],
    ['names the other way round', { ...MAREN, emails: address }, { fullName: 'Oldershaw Maren', emails: address }],
    ['an initial', { ...MAREN, numbers: line }, { givenName: 'M.', familyName: 'Oldershaw', numbers: line }],
    [
      'a familiar form',
      { givenName: 'Katherine', familyName: 'Holt', emails: address },
      { givenName: 'Kate', familyName: 'Holt', emails: address },
    ],
    [
      'a short form',
      { givenName: 'Joanna', familyName: 'Holt', numbers: line },
      { givenName: 'Jo', familyName: 'Holt', numbers: line },
    ],
    [
      'a slip of a key',
      { ...MAREN, emails: address },
      { givenName: 'Maren', familyName: 'Oldreshaw', emails: address },
    ],
    [
      'marks and digraphs',
      { givenName: 'Jörg', familyName: 'Müller', numbers: line },
      { givenName: 'Joerg', familyName: 'MUELLER', numbers: line },
    ],
    [
      'another script',
      { givenName: 'Зоя', familyName: 'Иванова', numbers: line },
      { givenName: 'Zoya', familyName: 'Ivanova', numbers: line },
    ],
    [
      'a mobile alone on one side',
      { ...MAREN, numbers: line, company: 'Causeway' },
      { numbers: line, company: 'Causeway' },
    ],
  ])('%s', (_, a, b) => expect(judge(contact(a), contact(b))).toBe('joined'))
})

describe('two people who share something', () => {
  const house = { city: 'Bamburgh', postalCode: 'NE69 7BP', numbers: [office('+441665555018')] }
  const work = { company: 'Causeway Guest House', domain: 'causeway.example', ...house }
  it.each<[string, Partial<PairInput>, Partial<PairInput>]>([
    ['relatives at one address', { ...MAREN, ...house }, { givenName: 'Jonah', familyName: 'Oldershaw', ...house }],
    [
      'father and son with one initial',
      { givenName: 'Jens', familyName: 'Krug', ...house },
      { givenName: 'Jan', familyName: 'Krug', ...house },
    ],
    [
      'sisters of like names',
      { givenName: 'Maria', familyName: 'Oldershaw', ...house },
      { givenName: 'Marie', familyName: 'Oldershaw', ...house },
    ],
    [
      'a mother and a daughter whose names begin alike',
      { givenName: 'Ann', familyName: 'Oldershaw', ...house },
      { givenName: 'Anna', familyName: 'Oldershaw', ...house },
    ],
    ['colleagues on one switchboard', { ...MAREN, ...work }, { givenName: 'Tom', familyName: 'Kestle', ...work }],
    [
      'namesakes in two companies',
      { ...MAREN, company: 'Causeway', city: 'York', domain: 'causeway.example' },
      { ...MAREN, company: 'Heron Lodge', city: 'Oxford', domain: 'heron.example' },
    ],
    ['an office nobody is named for', { ...MAREN, ...work }, work],
    [
      'a role address',
      { ...MAREN, emails: [{ address: 'info@x.example', isRole: true }] },
      { givenName: 'Tom', familyName: 'Kestle', emails: [{ address: 'info@x.example', isRole: true }] },
    ],
  ])('%s are not joined by themselves', (_, a, b) => expect(judge(contact(a), contact(b))).not.toBe('joined'))

  it('are not chained through somebody in between', () => {
    const [anna, both, bert] = [
      contact({ givenName: 'Anna', familyName: 'Vale', numbers: [mobile('+447911204481')] }),
      contact({ fullName: 'Vale', familyName: 'Vale', numbers: [mobile('+447911204481'), mobile('+447911204482')] }),
      contact({ givenName: 'Bert', familyName: 'Vale', numbers: [mobile('+447911204482')] }),
    ]
    const { groups } = pairContacts([anna, both, bert, ...strangers])
    expect(groups.filter(({ members }) => members.includes(0) && members.includes(2))).toEqual([])
  })
})

describe('lists that are out of the ordinary', () => {
  it('of nobody, of one, and of people nothing is known of', () => {
    expect(pairContacts([]).groups).toEqual([])
    expect(pairContacts([contact(MAREN)]).groups).toEqual([])
    const { groups, toDecide } = pairContacts(Array.from({ length: 50 }, () => contact({ country: '' })))
    expect([groups, toDecide.length]).toEqual([[], 0])
  })

  it('where thousands share a placeholder address or a company number, in time that does not explode', () => {
    const many = Array.from({ length: 4000 }, (_, i) =>
      contact({
        givenName: `Given${i}`,
        familyName: `Name${i}`,
        emails: [mail('none@none.example')],
        numbers: [office('+441665555018')],
        company: 'One House',
      }),
    )
    const { groups, toDecide } = pairContacts(many)
    expect(groups).toEqual([])
    expect(toDecide.length).toBeLessThan(50_000)
  })
})

describe('pairing', () => {
  const twice = strangers.map((one, i) =>
    i % 3 === 0 ? { ...one, fullName: `${one.familyName}, ${one.givenName}`, city: '' } : one,
  )
  const list = [...strangers, ...twice.slice(0, 40)]
  /** Groups by what their members are, whatever order they stand in. */
  const namesOf = (inputs: readonly PairInput[]) =>
    pairContacts(inputs)
      .groups.map(({ members }) =>
        members
          .map((at) => list.indexOf(inputs[at] as PairInput))
          .sort((a, b) => a - b)
          .join(),
      )
      .sort()

  it('does not depend on the order of the rows', () => {
    const groups = namesOf(list)
    expect(groups.length).toBeGreaterThan(20)
    expect(namesOf([...list].reverse())).toEqual(groups)
    const shuffled = list.map((one, i) => ({ one, key: (i * 7919) % 104_729 })).sort((a, b) => a.key - b.key)
    expect(namesOf(shuffled.map(({ one }) => one))).toEqual(groups)
  })

  it.each([0, 1, 300, 50_000])('finds the same where %i contacts were expected', (expected) => {
    const { rows } = madeUpList(3, 300)
    const pairing = createPairing(expected)
    for (const row of rows) pairing.add(row)
    const told = ({ groups, toDecide, bins }: Paired) => ({ groups, toDecide: [...toDecide], bins })
    const paired = ended(pairing.steps())
    expect(paired.groups.length).toBeGreaterThan(20)
    expect(told(paired)).toEqual(told(pairContacts(rows)))
  })

  it('finds nobody among nobody, however many were expected', () => {
    for (const expected of [0, 1000]) expect(ended(createPairing(expected).steps()).groups).toEqual([])
  })

  it('makes fewer groups the higher the line, and as many as it made from its own line on', () => {
    const paired = pairContacts(madeUpList(5, 300).rows)
    const counts = [5, 7, 10, 15, 25, 60].map(paired.groupsFrom)
    expect(paired.groupsFrom(7)).toBe(paired.groups.length)
    expect(paired.groups.length).toBeGreaterThan(20)
    // What is joined only by surer pairs is parted, or left out.
    expect(counts.at(-1)).toBeLessThan(paired.groups.length)
  })

  it('tells what each field weighs, adding up to the score', () => {
    const paired = pairContacts([
      contact({ ...MAREN, numbers: [mobile('+447911204481')], city: 'York' }),
      contact({ ...MAREN, numbers: [mobile('+447911204481')], city: 'Oxford' }),
      ...strangers,
    ])
    const evidence = paired.explain(0, 1)
    expect(evidence.map(({ field, level }) => `${field} ${level}`)).toEqual(['name same', 'number same', 'place other'])
    expect(evidence.map(({ bits }) => bits > 0)).toEqual([true, true, false])
    const sum = evidence.reduce((bits, one) => bits + one.bits, -paired.weights.against)
    expect(paired.groups.find(({ members }) => members.includes(0))?.score).toBeCloseTo(sum)
  })
})

function ended(steps: Generator<number, Paired>): Paired {
  for (;;) {
    const { done, value } = steps.next()
    if (done) return value
  }
}

import type { PairInput } from '../../src/pair'
import { below } from '../phone/numbersOfPlan'

/** A list of made-up people, some in several rows, and who each row is. */
export interface MadeUpList {
  readonly rows: readonly PairInput[]
  /** The person of each row, by number. */
  readonly people: readonly number[]
}

interface Firm {
  readonly name: string
  readonly domain: string
  readonly town: Town
  readonly switchboard: string
  readonly mailForm: number
}

interface Town {
  readonly name: string
  readonly codes: readonly string[]
  readonly country: string
}

interface Person {
  readonly given: string
  readonly family: string
  readonly maiden: string
  readonly birth: string
  readonly street: string
  readonly town: Town
  readonly code: string
  readonly landline: string
  readonly mobile: string
  readonly mail: string
  readonly workMail: string
  readonly desk: string
  readonly firm: Firm | null
  readonly profile: string
  /** A relative at the same address bears the name: their rows tell the birth date. */
  readonly hasNamesake: boolean
}

/** Syllables of names that stand in no word list. */
const STARTS =
  'bro vel kas tor mir dal fen gor hul jar kel lom nar ost pel quin rul sev tam ulv wex yor zan bex cri dro'.split(' ')
const MIDDLES = 'a e i o u ar en il on ur ad ev is ot un'.split(' ')
const ENDS = 'vik den mar lot sen wick bury dane holt mere nock pry quist rell stam trop vane worth zell gard'.split(
  ' ',
)
const GIVEN_ENDS = 'a o ia us en is ette el an ine yr ot'.split(' ')
const HOSTS = 'quillpost.test lanternmail.test oxbowmail.test murmurpost.test fernletter.test'.split(' ')
const STREETS = 'Lantern Copper Heron Willow Chapel Orchard Quarry Tannery Saddler Glebe Harrow Pepper'.split(' ')
const WAYS = 'Street Road Lane Way Rise'.split(' ')
const TRADES = 'Joinery Bakers Optics Dairy Printers Tiling Fabrics Cycles Nursery Cutlery'.split(' ')

type Random = ReturnType<typeof below>

const capital = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1)

function maker(random: Random) {
  const pick = <T>(from: readonly T[]): T => from[random(from.length)] as T
  /** Few are common, most are rare. */
  const pickCommon = <T>(from: readonly T[]): T => from[Math.floor((random(10_000) / 10_000) ** 1.6 * from.length)] as T
  const chance = (share: number): boolean => random(10_000) < share * 10_000
  const digits = (count: number): string => Array.from({ length: count }, () => random(10)).join('')
  const given = Array.from({ length: 360 }, () =>
    capital(pick(STARTS) + pick(MIDDLES).slice(0, 1) + pick(STARTS).slice(-1) + pick(GIVEN_ENDS)),
  )
  const family = Array.from({ length: 1800 }, () => capital(pick(STARTS) + pick(MIDDLES) + pick(ENDS)))
  return { pick, pickCommon, chance, digits, given, family }
}

/** People of firms, families and none, the same ones for every seed. */
function peopleOf(random: Random, count: number) {
  const { pick, pickCommon, chance, digits, given, family } = maker(random)
  const towns: Town[] = Array.from({ length: 45 }, (_, i) => ({
    name: capital(pick(STARTS) + pick(ENDS)),
    codes: Array.from({ length: 5 }, () => `${30000 + i * 400 + random(400)}`),
    country: i % 3 === 0 ? 'DE' : i % 3 === 1 ? 'GB' : 'FR',
  }))
  const firms: Firm[] = Array.from({ length: count / 4 }, (_, i) => {
    const word = capital(pick(STARTS) + pick(MIDDLES) + pick(STARTS))
    return {
      name: `${word} ${pick(TRADES)}`,
      domain: `${word.toLowerCase()}${i}.test`,
      town: pick(towns),
      switchboard: `+4930${digits(7)}`,
      mailForm: random(3),
    }
  })
  const mailOf = (form: number, g: string, f: string, domain: string) =>
    `${[`${g}.${f}`, `${g.charAt(0)}${f}`, g][form]}@${domain}`.toLowerCase()
  const people: Person[] = []
  const taken = new Set<string>()
  /** No letter box belongs to two. */
  const unique = (address: string): string => {
    const [local, host] = address.split('@')
    let free = address
    for (let more = 2; taken.has(free); more++) free = `${local}${more}@${host}`
    taken.add(free)
    return free
  }
  const home = (town: Town) => {
    return {
      town,
      code: pick(town.codes),
      street: `${pick(STREETS)} ${pick(WAYS)} ${1 + random(90)}`,
      landline: `+4940${digits(7)}`,
    }
  }
  const add = (fixed: Partial<Person>) => {
    const g = fixed.given ?? pickCommon(given)
    const f = fixed.family ?? pickCommon(family)
    const firm = chance(0.65) ? pickCommon(firms) : null
    const number = chance(0.5) ? `${random(90) + 10}` : ''
    people.push({
      given: g,
      family: f,
      maiden: pick(family),
      birth: `${1945 + random(55)}-${String(1 + random(12)).padStart(2, '0')}-${String(1 + random(28)).padStart(2, '0')}`,
      mobile: `+49151${digits(8)}`,
      mail: unique(`${chance(0.6) ? `${g}.${f}${number}` : `${g}${digits(3)}`}@${pick(HOSTS)}`.toLowerCase()),
      workMail: firm ? unique(mailOf(firm.mailForm, g, f, firm.domain)) : '',
      desk: firm ? (chance(0.6) ? firm.switchboard : `${firm.switchboard.slice(0, -2)}${digits(2)}`) : '',
      firm,
      profile: chance(0.3) ? `profiles.test/in/${g}-${f}-${digits(4)}`.toLowerCase() : '',
      // Most live where they work.
      ...home(firm && chance(0.9) ? firm.town : pick(towns)),
      hasNamesake: false,
      ...fixed,
    })
  }
  while (people.length < count) {
    const before = people.length
    add({})
    const { family: f, given: g, town, code, street, landline } = people[before] as Person
    const house = { family: f, town, code, street, landline }
    // Relatives at one address; one in a few bears the name of a parent.
    if (chance(0.12)) add(chance(0.15) ? { ...house, given: g, hasNamesake: true } : house)
    if (chance(0.03)) add(house)
    const namesake = people.findIndex((one, at) => at > before && one.hasNamesake)
    if (namesake !== -1) people[before] = { ...(people[before] as Person), hasNamesake: true }
  }
  return people
}

/** One row of a person, as one of four sources writes it down. */
function rowOf(person: Person, source: number, random: Random): PairInput {
  const has = (share: number): boolean => random(1000) < share * 1000
  const { firm } = person
  const atWork = firm !== null && source !== 1
  const married = has(0.015)
  const family = married ? person.maiden : person.family
  let given = person.given
  if (source === 3 && has(0.35)) given = given.charAt(0)
  else if (has(0.06)) given = slipped(given, random)
  const familyWritten = !married && has(0.07) ? slipped(family, random) : family
  const full = has(0.06) ? `${familyWritten}, ${given}` : `${given} ${familyWritten}`
  const written = has(0.03) ? full.replace(/[aeiou](?=[a-z])/, '?') : full
  const mails: { address: string; isRole: boolean }[] = []
  const personal = source === 1 || (source === 2 && has(0.55)) || !atWork
  if (personal && has(0.85)) mails.push({ address: dressed(person.mail, random), isRole: false })
  if (atWork && (source === 0 || has(0.7))) mails.push({ address: person.workMail, isRole: false })
  if (atWork && has(0.05)) mails.push({ address: `info@${firm.domain}`, isRole: true })
  const numbers: { e164: string; isMobile: boolean }[] = []
  if (source === 1 || source === 2 ? has(0.9) : has(0.6)) numbers.push({ e164: person.mobile, isMobile: true })
  if (atWork && (source === 0 || source === 3) && has(0.8)) numbers.push({ e164: person.desk, isMobile: false })
  if (source === 1 && has(0.5)) numbers.push({ e164: person.landline, isMobile: false })
  const place = atWork ? { town: firm.town, code: '' } : person
  const isNear = has(0.9)
  return {
    fullName: written.replace(/,/, ''),
    givenName: written.includes(',') || written.includes('?') ? '' : given,
    familyName: written.includes(',') || written.includes('?') ? '' : familyWritten,
    company:
      atWork && has(0.92)
        ? has(0.08)
          ? (firm.name.split(' ')[0] ?? '')
          : has(0.06)
            ? `${firm.name} ${firm.town.name}`
            : firm.name
        : '',
    domain: atWork && has(0.7) ? firm.domain : (mails[0]?.address.split('@')[1] ?? ''),
    profile: has(0.4) ? person.profile : '',
    city: isNear ? place.town.name : '',
    postalCode: isNear && !atWork && has(0.8) ? person.code : '',
    street:
      isNear && !atWork && has(0.7)
        ? has(0.2)
          ? person.street.replace('Street', 'St').replace('Road', 'Rd')
          : person.street
        : '',
    birthDate:
      (source === 1 && has(0.6)) || person.hasNamesake ? (has(0.2) ? person.birth.slice(0, 4) : person.birth) : '',
    country: place.town.country,
    numbers,
    emails: mails,
  }
}

function slipped(word: string, random: Random): string {
  const at = 1 + random(Math.max(1, word.length - 2))
  const kind = random(3)
  if (kind === 0) return word.slice(0, at) + word.slice(at + 1)
  if (kind === 1) return word.slice(0, at) + word.charAt(at) + word.slice(at)
  return word.slice(0, at) + word.charAt(at + 1) + word.charAt(at) + word.slice(at + 2)
}

/** An address with a tag or without its dots, now and then. */
function dressed(address: string, random: Random): string {
  const [local = '', host = ''] = address.split('@')
  if (random(100) < 5) return `${local}+news@${host}`
  if (random(100) < 4) return `${local.replace(/\./g, '')}@${host}`
  return address
}

/** So many rows of people; a third of them stand in the list more than once. */
export function madeUpList(seed: number, rows: number): MadeUpList {
  const random = below(seed * 7919)
  const people = peopleOf(random, Math.round(rows * 0.7))
  const list: { row: PairInput; person: number; key: number }[] = []
  people.forEach((person, at) => {
    const times = random(100) < 68 ? 1 : random(100) < 75 ? 2 : 3
    // Most lists are of people at work; some of their rows come from where people are at home.
    const sources = (random(2) === 0 ? [0, 1, 2, 3] : [0, 2, 3, 2]).sort(() => random(3) - 1)
    for (let i = 0; i < times && list.length < rows; i++)
      list.push({ row: rowOf(person, sources[i] as number, random), person: at, key: random(1_000_000) })
  })
  list.sort((a, b) => a.key - b.key)
  return { rows: list.map(({ row }) => row), people: list.map(({ person }) => person) }
}

/** How well a list was paired. */
export interface Figures {
  readonly precision: number
  readonly recall: number
  readonly recallDecided: number
  readonly toDecidePerThousand: number
  readonly wrong: readonly (readonly [number, number])[]
  readonly missed: readonly (readonly [number, number])[]
}

export function figuresOf(
  { rows, people }: MadeUpList,
  groups: readonly (readonly number[])[],
  toDecide: readonly { readonly a: number; readonly b: number }[],
): Figures {
  const groupAt = new Map(groups.flatMap((members, i) => members.map((member) => [member, i] as const)))
  const keyOf = (a: number, b: number) => (a < b ? `${a} ${b}` : `${b} ${a}`)
  const decided = new Set(toDecide.filter(({ a, b }) => people[a] === people[b]).map(({ a, b }) => keyOf(a, b)))
  const byPerson = new Map<number, number[]>()
  for (const [at, person] of people.entries()) byPerson.set(person, [...(byPerson.get(person) ?? []), at])
  let [truePairs, joined, reached] = [0, 0, 0]
  const missed: (readonly [number, number])[] = []
  for (const members of byPerson.values())
    for (const [i, a] of members.entries())
      for (const b of members.slice(i + 1)) {
        truePairs++
        const isJoined = groupAt.has(a) && groupAt.get(a) === groupAt.get(b)
        if (isJoined) joined++
        // What is decided joins whole groups: a third row may stand between the two.
        if (isJoined || decided.has(keyOf(a, b)) || members.some((c) => isLinked(a, c) && isLinked(c, b))) reached++
        else missed.push([a, b])
      }
  function isLinked(a: number, b: number): boolean {
    return (groupAt.has(a) && groupAt.get(a) === groupAt.get(b)) || decided.has(keyOf(a, b))
  }
  const wrong: (readonly [number, number])[] = []
  let all = 0
  for (const members of groups)
    for (const [i, a] of members.entries())
      for (const b of members.slice(i + 1)) {
        all++
        if (people[a] !== people[b]) wrong.push([a, b])
      }
  return {
    precision: 1 - wrong.length / Math.max(1, all),
    recall: joined / Math.max(1, truePairs),
    recallDecided: reached / Math.max(1, truePairs),
    toDecidePerThousand: (toDecide.length / rows.length) * 1000,
    wrong,
    missed,
  }
}

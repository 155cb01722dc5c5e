import { isValidE164, readPhoneCell } from '@upper-field/core/phone'
import { COMPANY_KINDS, COMPANY_NAMES, FREE_MAIL_HOSTS, LEGAL_FORMS, PLACES, type Place, TITLES } from './places'
import { createRandom, type Random } from './random'

export type TrueType = 'mobile' | 'fixed' | 'voip'
export type TrueStatus = 'in-service' | 'out-of-service' | 'unreachable'

/** A number and the truth about it. */
export interface WorldNumber {
  readonly e164: string
  readonly country: string
  readonly type: TrueType
  readonly status: TrueStatus
  readonly carrier: string
  readonly isPorted: boolean
  readonly timeZone: string
  readonly lastSeen: string
}

export interface WorldCompany {
  readonly id: number
  readonly name: string
  readonly legalForm: string
  readonly domain: string
  readonly place: Place
  readonly city: string
  readonly postalCode: string
  readonly switchboard: WorldNumber
}

export interface WorldPerson {
  readonly id: number
  readonly given: string
  readonly family: string
  readonly title: string
  readonly company: WorldCompany
  readonly mobile: WorldNumber
  readonly desk: WorldNumber
  readonly workEmail: string
  readonly personalEmail: string
  /** Without scheme. */
  readonly profile: string
}

/** Somebody at home who asked for a quotation: no company, only personal ways to reach them. */
export interface WorldConsumer {
  readonly id: number
  readonly given: string
  readonly family: string
  readonly place: Place
  readonly city: string
  readonly postalCode: string
  readonly mobile: WorldNumber
  readonly home: WorldNumber
  readonly personalEmail: string
}

export interface World {
  readonly seed: string
  readonly companies: readonly WorldCompany[]
  readonly people: readonly WorldPerson[]
  readonly consumers: readonly WorldConsumer[]
  numberOf(e164: string): WorldNumber | undefined
}

/** Makes the world. Same seed and size, same world. */
export function createWorld(
  seed: string,
  { people: count, consumers: atHome = 0 }: { people: number; consumers?: number },
): World {
  const random = createRandom(seed)
  const numbers = new Map<string, WorldNumber>()
  const companies = Array.from({ length: Math.ceil(count / 2.2) }, (_, id) => makeCompany(random, numbers, id))
  const people = Array.from({ length: count }, (_, id) => makePerson(random, numbers, id, random.pick(companies)))
  const consumers = Array.from({ length: atHome }, (_, id) => makeConsumer(random, numbers, id))
  return { seed, companies, people, consumers, numberOf: (e164) => numbers.get(e164) }
}

function makeCompany(random: Random, numbers: Map<string, WorldNumber>, id: number): WorldCompany {
  const place = pickPlace(random)
  const [city, postalCode] = random.pick(place.cities)
  const name = `${random.pick(COMPANY_NAMES)} ${random.pick(COMPANY_KINDS)}`
  const domain = `${plain(name)}-${id}.example`
  return {
    id,
    name,
    legalForm: random.pick(LEGAL_FORMS[place.country] ?? ['Ltd']),
    domain,
    place,
    city,
    postalCode,
    switchboard: makeNumber(random, numbers, place, 'fixed'),
  }
}

function makePerson(random: Random, numbers: Map<string, WorldNumber>, id: number, company: WorldCompany): WorldPerson {
  const { place } = company
  const given = random.pick(place.given)
  const family = random.pick(place.family)
  const handle = `${plain(given)}.${plain(family)}`
  return {
    id,
    given,
    family,
    title: random.pick(TITLES),
    company,
    mobile: makeNumber(random, numbers, place, 'mobile'),
    desk: makeNumber(random, numbers, place, random.chance(0.08) ? 'voip' : 'fixed'),
    workEmail: `${handle}${id}@${company.domain}`,
    personalEmail: `${handle}${id}@${random.pick(FREE_MAIL_HOSTS)}`,
    profile: `rollcall.example/p/${plain(given)}-${plain(family)}-${id.toString(36)}`,
  }
}

function makeConsumer(random: Random, numbers: Map<string, WorldNumber>, id: number): WorldConsumer {
  const place = pickPlace(random)
  const [city, postalCode] = random.pick(place.cities)
  const given = random.pick(place.given)
  const family = random.pick(place.family)
  return {
    id,
    given,
    family,
    place,
    city,
    postalCode,
    mobile: makeNumber(random, numbers, place, 'mobile'),
    home: makeNumber(random, numbers, place, 'fixed'),
    personalEmail: `${plain(given)}.${plain(family)}.${id}@${random.pick(FREE_MAIL_HOSTS)}`,
  }
}

function pickPlace(random: Random): Place {
  let at = random.below(PLACES.reduce((sum, { weight }) => sum + weight, 0))
  for (const place of PLACES) {
    if (at < place.weight) return place
    at -= place.weight
  }
  throw new Error('weights do not add up')
}

/** A number nobody else in the world has, that the numbering plan calls valid and the engine no placeholder. */
function makeNumber(random: Random, numbers: Map<string, WorldNumber>, place: Place, type: TrueType): WorldNumber {
  for (let attempt = 1; ; attempt++) {
    const wanted = random.pick(type === 'mobile' ? place.mobiles : place.fixed)
    const pattern = attempt > CROWDED ? widen(wanted, attempt) : wanted
    const e164 = `+${place.code}${pattern.replace(/n/g, () => String(random.below(10)))}`
    if (numbers.has(e164) || !isValidE164(e164) || readPhoneCell(e164).verdict !== 'clean') continue
    const dice = random.next()
    const number: WorldNumber = {
      e164,
      country: place.country,
      type,
      status: dice < 0.82 ? 'in-service' : dice < 0.94 ? 'out-of-service' : 'unreachable',
      carrier: random.pick(place.carriers),
      isPorted: random.chance(0.15),
      timeZone: place.timeZone,
      lastSeen: `2026-${String(1 + random.below(10)).padStart(2, '0')}-${String(1 + random.below(28)).padStart(2, '0')}`,
    }
    numbers.set(e164, number)
    return number
  }
}

/** After so many numbers that are taken, a block counts as full. */
const CROWDED = 30

/** A large world runs out of the small blocks: the digits behind the first three become free, then behind two, then one. */
function widen(pattern: string, attempt: number): string {
  const kept = Math.max(1, 4 - Math.ceil(attempt / CROWDED / 2))
  return pattern.slice(0, kept) + 'n'.repeat(pattern.length - kept)
}

/** Lower-case ASCII for addresses. */
export const plain = (text: string): string =>
  text
    .toLowerCase()
    .replace(/ß/g, 'ss')
    .normalize('NFD')
    .replace(/\p{M}/gu, '')
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-|-$/g, '')

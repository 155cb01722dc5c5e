import { createHash } from 'node:crypto'
import { factsOfCompany, isLikely, type World, type WorldCompany } from '../world'

/** How likely a network knows somebody by each way of naming them. */
export interface KnownBy {
  readonly personalEmail: number
  readonly workEmail: number
  readonly mobile: number
  readonly nameAndPlace: number
  readonly device: number
  readonly companyPage: number
  readonly site: number
  readonly companyName: number
}

/** Accounts of a network, each found by what names it. */
export interface Matcher {
  /** The account that is named; undefined where the network has none. */
  accountOf(identifiers: readonly string[]): string | undefined
  /** Every account there is, with the country of its holder. */
  readonly countries: ReadonlyMap<string, string>
}

export const sha256 = (text: string): string => createHash('sha256').update(text).digest('hex')

/** One line is another's double where all its cells are the same. */
export const lineKey = (cells: readonly string[]): string => sha256(cells.join('\n'))

/** A name for each kind of identifier, so that a number is never taken for an address. */
export const identifier = {
  email: (hash: string) => `e ${hash}`,
  number: (hash: string) => `n ${hash}`,
  device: (hash: string) => `d ${hash}`,
  nameAndPlace: (given: string, family: string, country: string, postalCode: string) =>
    `w ${given} ${family} ${country.toUpperCase()} ${placeCode(postalCode)}`,
  companyPage: (page: string) => `p ${page.replace(/^https?:\/\//, '')}`,
  site: (site: string) => `s ${site.replace(/^https?:\/\/(www\.)?/, '')}`,
  companyName: (name: string) => `c ${name.toLowerCase()}`,
}

const placeCode = (code: string): string => code.replace(/[\s-]/g, '').toUpperCase()

/** Lists of one country match better or worse than those of another. */
const leaningOf = (seed: string, network: string, country: string): number =>
  [0.85, 0.95, 1, 1.05, 1.15].find((_, i) => isLikely((i + 1) / 5, seed, network, 'leans', country)) ?? 1

/** The device of somebody, as advertising names it; few have told theirs. */
export const deviceOf = (seed: string, consumer: number): string => {
  const hex = sha256(`${seed}|device|${consumer}`)
  return `${hex.slice(0, 8)}-${hex.slice(8, 12)}-4${hex.slice(13, 16)}-a${hex.slice(17, 20)}-${hex.slice(20, 32)}`
}

/** Who of the world has an account at a network, and by which of their identifiers it is found. */
export function createMatcher(world: World, network: string, knownBy: KnownBy): Matcher {
  const accounts = new Map<string, string>()
  const countries = new Map<string, string>()
  const know = (share: number, account: string, country: string, found: string) => {
    if (!isLikely(share * leaningOf(world.seed, network, country), world.seed, network, account, found)) return
    accounts.set(found, account)
    countries.set(account, country)
  }
  const { email, number, device, nameAndPlace } = identifier
  for (const { id, given, family, company, mobile, workEmail, personalEmail } of world.people) {
    const [account, country] = [`worker ${id}`, company.place.country]
    know(knownBy.personalEmail, account, country, email(sha256(personalEmail)))
    know(knownBy.workEmail, account, country, email(sha256(workEmail)))
    know(knownBy.mobile, account, country, number(sha256(mobile.e164)))
    know(
      knownBy.nameAndPlace / 4,
      account,
      country,
      nameAndPlace(hashedName(given), hashedName(family), country, company.postalCode),
    )
  }
  for (const one of world.consumers) {
    const [account, country] = [`consumer ${one.id}`, one.place.country]
    know(knownBy.personalEmail, account, country, email(sha256(one.personalEmail)))
    know(knownBy.mobile, account, country, number(sha256(one.mobile.e164)))
    know(knownBy.device, account, country, device(sha256(deviceOf(world.seed, one.id))))
    const named = nameAndPlace(hashedName(one.given), hashedName(one.family), country, one.postalCode)
    know(knownBy.nameAndPlace, account, country, named)
  }
  for (const company of world.companies) knowCompany(world, company, knownBy, know)
  return {
    countries,
    accountOf: (identifiers) => {
      for (const one of identifiers) {
        const account = accounts.get(one)
        if (account !== undefined) return account
      }
      return undefined
    },
  }
}

function knowCompany(
  world: World,
  company: WorldCompany,
  knownBy: KnownBy,
  know: (share: number, account: string, country: string, found: string) => void,
): void {
  const [account, country] = [`company ${company.id}`, company.place.country]
  know(knownBy.companyPage, account, country, identifier.companyPage(factsOfCompany(world, company).page))
  know(knownBy.site, account, country, identifier.site(company.domain))
  know(knownBy.companyName, account, country, identifier.companyName(company.name))
}

const hashedName = (name: string): string => sha256(name.toLowerCase().normalize('NFC'))

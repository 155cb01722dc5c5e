import { hashOf, isLikely } from './random'
import { plain, type World, type WorldCompany } from './world'

const INDUSTRIES = ['Hospitality', 'Garden retail', 'Camping and caravanning', 'Catering', 'Tourism'] as const
const HEADCOUNTS = [3, 8, 15, 30, 60, 140, 420] as const

/** What can be told of a company beyond its name. */
export interface CompanyFacts {
  readonly site: string
  /** Where the company stands on the profile site. */
  readonly page: string
  readonly industry: string
  readonly headcount: number
}

export function factsOfCompany({ seed }: World, { id, name, domain }: WorldCompany): CompanyFacts {
  const pick = <T>(of: readonly T[], what: string): T => of[hashOf(`${seed}|${what}|${id}`) % of.length] as T
  return {
    site: `https://www.${domain}`,
    page: `https://rollcall.example/c/${plain(name)}-${id.toString(36)}`,
    industry: pick(INDUSTRIES, 'industry'),
    headcount: pick(HEADCOUNTS, 'headcount'),
  }
}

export type Deliverability = 'deliverable' | 'accept-all' | 'undeliverable' | 'unknown'

/** The truth about an address of this world; of others nobody knows. */
export function deliverabilityOf(world: World, email: string): Deliverability {
  const host = email.split('@')[1] ?? ''
  if (!hostsOf(world).has(host)) return 'unknown'
  if (isLikely(0.07, world.seed, 'mail comes back', email)) return 'undeliverable'
  return isLikely(0.2, world.seed, 'takes everything', host) ? 'accept-all' : 'deliverable'
}

const hosts = new WeakMap<World, ReadonlySet<string>>()

function hostsOf(world: World): ReadonlySet<string> {
  const known =
    hosts.get(world) ??
    new Set([
      ...world.companies.map(({ domain }) => domain),
      ...[...world.people, ...world.consumers].map(({ personalEmail }) => personalEmail.split('@')[1] ?? ''),
    ])
  hosts.set(world, known)
  return known
}

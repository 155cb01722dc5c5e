import type { HarvestPlan, HarvestSource } from '@upper-field/contract'
import { siteOf } from '@upper-field/core/harvest'
import PQueue from 'p-queue'
import type { z } from 'zod'
import { chosenContacts } from '../contacts/page'
import { readWholeFilter } from '../contacts/readFilter'
import { num, readRows, text } from '../db/readRows'
import { Problem } from '../http/problem'
import type { Services } from '../services'
import { type ReadAddresses, readAddresses } from './addresses'
import type { Visitor } from './fetchPage'
import { askRobots, rulesOf } from './robots'

/** So many sites are asked for their rules before it starts; the others when their turn comes. */
const ASKED_BEFORE = 40
const AT_ONCE = 10
const UNREAD_SHOWN = 20

export interface ChosenAddresses extends ReadAddresses {
  /** Sites of the contacts beyond those that one harvest reads. */
  readonly beyond: number
}

/** The addresses a source means. Throws a problem where there is none. */
export async function addressesOf(
  services: Pick<Services, 'db' | 'config'>,
  listId: string,
  source: z.output<typeof HarvestSource>,
): Promise<ChosenAddresses> {
  const { lines, beyond } =
    source.from === 'addresses'
      ? { lines: source.addresses, beyond: 0 }
      : await sitesOfContacts(services, listId, source.filter)
  const read = readAddresses(lines)
  if (read.urls.length === 0)
    throw new Problem(
      422,
      'no-addresses',
      source.from === 'contacts' ? 'None of these contacts has a site.' : 'No line is an address of a page.',
    )
  return { ...read, beyond }
}

async function sitesOfContacts(
  { db, config }: Pick<Services, 'db' | 'config'>,
  listId: string,
  typed: string,
): Promise<{ lines: readonly string[]; beyond: number }> {
  const filter = await readWholeFilter(db, listId, typed)
  const found = await readRows(db, { domain: text, sites: num })`
    select domain, count(*) over () as sites from contacts
    where ${chosenContacts(listId, filter)} and domain <> ''
    group by domain order by min(id) limit ${config.limits.harvestSites}`
  return { lines: found.map(({ domain }) => domain), beyond: (found[0]?.sites ?? 0) - found.length }
}

interface Planned {
  readonly follow: 'none' | 'contact' | 'all'
  readonly pagesPerSite: number
}

/** What a harvest comes to: how many pages and sites, what their rules allow, at most how long and how much. */
export async function planOf(
  { config }: Services,
  visitor: Visitor,
  { urls, unread, repeated, beyond }: ChosenAddresses,
  { follow, pagesPerSite }: Planned,
): Promise<HarvestPlan> {
  const bySite = new Map<string, string[]>()
  for (const url of urls) bySite.set(siteOf(url), [...(bySite.get(siteOf(url)) ?? []), url])
  const forbidden: string[] = []
  const unreachable: string[] = []
  const slow: HarvestPlan['slow'] = []
  const delays = new Map<string, number>()
  const queue = new PQueue({ concurrency: AT_ONCE })
  const asked = [...bySite].slice(0, ASKED_BEFORE)
  await queue.addAll(
    asked.map(([site, pages]) => async () => {
      const [first = ''] = pages
      const answer = await askRobots(visitor, first)
      if (answer.is === 'problem') unreachable.push(site)
      if (answer.is !== 'known') return
      const rules = rulesOf(first, answer.text)
      delays.set(site, rules.delay)
      if (!pages.some((page) => rules.allows(page))) forbidden.push(site)
      if (rules.delay > config.limits.pageDelaySeconds) slow.push({ site, seconds: rules.delay })
    }),
  )
  const pagesOf = (given: number) => given + (follow === 'none' ? 0 : pagesPerSite)
  const seconds = [...bySite].map(
    ([site, { length }]) => pagesOf(length) * Math.max(config.limits.pageDelaySeconds, delays.get(site) ?? 0),
  )
  const mostPages = [...bySite.values()].reduce((sum, { length }) => sum + pagesOf(length), 0)
  const together = seconds.reduce((sum, one) => sum + one, 0) / config.limits.pagesAtOnce
  return {
    addresses: urls.length,
    sites: bySite.size,
    unread: unread.slice(0, UNREAD_SHOWN),
    unreadCount: unread.length,
    repeated,
    beyond,
    asked: asked.length,
    forbidden: forbidden.sort(),
    unreachable: unreachable.sort(),
    slow,
    mostPages,
    mostSeconds: Math.ceil(Math.max(together, ...seconds)),
    mostBytes: mostPages * config.limits.pageBytes,
  }
}

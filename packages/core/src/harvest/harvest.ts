import { type Business, businessOf } from './business'
import { countryOf } from './countryOf'
import { findEmails } from './findEmails'
import { type Finding, findNumbers } from './findNumbers'
import type { NumberFormat } from './formats'
import type { LeftOutThing } from './leftOut'
import { type Page, readPage } from './page'

export interface Harvest {
  readonly findings: readonly Finding[]
  readonly business: Pick<Business, 'name' | 'address' | 'openingHours'> | null
  /** The country its numbers are dialled from, ISO 3166-1 alpha-2; null where neither the caller nor the page tells. */
  readonly country: string | null
  /** What looks like a number to call and is none, in the order in which it stands. */
  readonly leftOut: readonly LeftOutThing[]
}

export interface HarvestOptions {
  /** Where the page stands. */
  readonly url: string
  /** ISO 3166-1 alpha-2, where it is known; the page is asked else. */
  readonly country?: string | null
  /** Formats of numbers that were taught by example. */
  readonly formats?: readonly NumberFormat[]
}

/** From this confidence on a finding is taken by itself. */
export const TAKEN_FROM = 0.5

/**
 * Numbers and addresses on a page: links to dial, structured data, cells and text beside words for telephone, text
 * alone. What looks alike (orders, taxes, dates, coordinates, accounts, prices, fax lines) is left out. Each value once,
 * as it was found best.
 */
export function harvest(html: string, options: HarvestOptions): Harvest {
  return harvestPage(readPage(html), options)
}

/** The same of a page that was taken apart before. */
export function harvestPage(page: Page, { url, country = null, formats = [] }: HarvestOptions): Harvest {
  const business = businessOf(page)
  const dialled = country ?? countryOf(page, business, url)
  const { numbers, leftOut } = findNumbers(page, business, { country: dialled, formats })
  return {
    findings: bestOfEach([...numbers, ...findEmails(page, business)]),
    business: business && business.name !== '' ? shown(business) : null,
    country: dialled,
    leftOut,
  }
}

/** The country a page tells it is of; null where nothing tells. */
export const countryOfPage = (page: Page, url: string): string | null => countryOf(page, businessOf(page), url)

const shown = ({ name, address, openingHours }: Business): NonNullable<Harvest['business']> => ({
  name,
  address,
  openingHours,
})

/** Each value once, as it was found best, in the order of their first finding; surer by being found in several ways. */
function bestOfEach(all: readonly Finding[]): readonly Finding[] {
  const best = new Map<string, Finding>()
  const ways = new Map<string, Set<string>>()
  for (const one of all) {
    const key = `${one.kind} ${one.value}`
    ways.set(key, (ways.get(key) ?? new Set()).add(one.how))
    const known = best.get(key)
    if (!known || one.confidence > known.confidence) best.set(key, one)
  }
  return [...best].map(([key, one]) =>
    (ways.get(key)?.size ?? 1) > 1 ? { ...one, confidence: Math.max(one.confidence, surer(one.confidence)) } : one,
  )
}

const surer = (confidence: number): number => Math.round((1 - (1 - confidence) / 2) * 100) / 100

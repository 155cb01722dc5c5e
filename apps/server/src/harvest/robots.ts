import { createRequire } from 'node:module'
import type { Robot } from 'robots-parser'
import { AGENT, fetchPage, type PageProblem, type Visitor } from './fetchPage'

// The package says that it is a module of the newer kind, and is one of the older.
const parse = createRequire(import.meta.url)('robots-parser') as (url: string, text: string) => Robot

/** What a site allows, by its robots.txt. */
export interface Rules {
  allows(url: string): boolean
  /** Seconds it asks to wait between two pages; 0 where it does not. */
  readonly delay: number
}

export type AskedRobots =
  | { readonly is: 'known'; readonly text: string | null; readonly origin: string }
  | { readonly is: 'busy'; readonly seconds: number }
  | { readonly is: 'problem'; readonly problem: PageProblem }

/** More than this of a robots.txt need not be read (RFC 9309, section 2.5). */
const LONGEST = 512_000

/** Asks a site for its robots.txt. One that has none allows everything; one that fails allows nothing (RFC 9309, section 2.3.1). */
export async function askRobots(visitor: Visitor, url: string): Promise<AskedRobots> {
  const address = new URL('/robots.txt', url).href
  const answer = await fetchPage(visitor, address, { takes: /.*/, bytes: LONGEST, allows: () => true })
  const { origin } = new URL(url)
  if (answer.is === 'page') return { is: 'known', text: answer.html, origin }
  if (answer.is === 'busy') return answer
  // Rules that lie at another site are none of this one's that we could hold pages against.
  if (answer.is === 'elsewhere') return { is: 'known', text: null, origin }
  const hasNone = answer.problem === 'not-there' || answer.problem === 'not-allowed' || answer.problem === 'redirects'
  return hasNone ? { is: 'known', text: null, origin } : answer
}

/** The rules of a robots.txt. */
export function rulesOf(url: string, text: string | null): Rules {
  if (text === null) return { allows: () => true, delay: 0 }
  const { origin } = new URL(url)
  const robot = parse(new URL('/robots.txt', origin).href, text)
  return {
    // Written for one spelling of the host: another spelling, or encryption, changes nothing of what is meant.
    allows: (page) => robot.isAllowed(new URL(pathOf(page), origin).href, AGENT) !== false,
    delay: robot.getCrawlDelay(AGENT) ?? 0,
  }
}

function pathOf(url: string): string {
  const { pathname, search } = new URL(url)
  return `${pathname}${search}`
}

import type { HarvestPlan, HarvestSite, SiteFinding, SitePage, TriedFormat } from '@upper-field/contract'
import { bytes, countryName, plural, remaining } from '../words/format'

/** Why a page or a site was not read. */
const PROBLEM: Readonly<Record<string, string>> = {
  forbidden: 'robots.txt forbids it',
  'no-such-name': 'the name does not resolve',
  'private-address': 'leads to a private address',
  'not-reached': 'nobody answers',
  certificate: 'its certificate is not valid',
  'too-slow': 'took too long',
  'too-large': 'larger than a page may be',
  'no-page': 'no page of text',
  redirects: 'redirects round and round',
  'not-there': 'not there (404)',
  'not-allowed': 'asks for a log-in',
  'site-failed': 'the site failed',
  'long-wait': 'asks for a longer wait than is kept',
  elsewhere: 'leads to another site',
  interrupted: 'was being read when the server stopped',
  'many-values': 'more values than a page about one business',
}
export const problemOf = (code: string | null): string => (code === null ? '' : (PROBLEM[code] ?? code))

/** Where a site stands, in a few words under its name. */
export function siteLine(site: HarvestSite): { readonly text: string; readonly tone: 'plain' | 'look' | 'bad' } {
  if (site.state === 'forbidden') return { text: problemOf('forbidden'), tone: 'look' }
  if (site.state === 'unreachable') return { text: problemOf(site.problem), tone: 'bad' }
  if (site.state === 'waiting') return { text: 'waiting', tone: 'plain' }
  if (site.interrupted > 0) return { text: `${plural(site.interrupted, 'page')} cut off`, tone: 'bad' }
  if (site.toLookAt > 0) return { text: `${plural(site.toLookAt, 'value')} to look at`, tone: 'look' }
  const delay = site.delay >= 2 ? ` · ${site.delay} s between pages` : ''
  if (site.waiting > 0) return { text: `${site.read} of ${plural(site.pages, 'page')}${delay}`, tone: 'plain' }
  if (site.read === 0 && site.problem !== null) return { text: problemOf(site.problem), tone: 'bad' }
  return { text: `${plural(site.read, 'page')} read${delay}`, tone: site.read === 0 ? 'bad' : 'plain' }
}

const HOW: Readonly<Record<SiteFinding['how'][number], string>> = {
  link: 'a link to dial or write to',
  'structured-data': 'structured data',
  table: 'a table',
  label: 'behind a word for it',
  taught: 'a format that was taught',
  text: 'in the text',
}
export const howOf = (how: SiteFinding['how']): string => how.map((one) => HOW[one]).join(', ')

export const sureOf = ({ state, decidedBy, confidence }: SiteFinding): string => {
  if (state === 'dropped') return 'dropped'
  if (decidedBy !== null) return 'confirmed'
  if (state === 'look') return 'look at it'
  return confidence >= 0.8 ? 'sure' : 'likely'
}

const LEFT_OUT: Readonly<Record<SitePage['leftOut'][number]['why'], readonly [string, string]>> = {
  fax: ['fax line', 'fax lines'],
  tax: ['tax number', 'tax numbers'],
  account: ['bank account', 'bank accounts'],
  order: ['order number', 'order numbers'],
  coordinates: ['coordinate', 'coordinates'],
  date: ['date', 'dates'],
  hours: ['opening hour', 'opening hours'],
  amount: ['amount', 'amounts'],
  taught: ['run of digits that was taught to be none', 'runs of digits that were taught to be none'],
  other: ['other run of digits', 'other runs of digits'],
}

/** What looks like a number on a page and was left out, counted. */
export function leftOutText(leftOut: SitePage['leftOut']): string {
  const counts = new Map<(typeof leftOut)[number]['why'], number>()
  for (const { why } of leftOut) counts.set(why, (counts.get(why) ?? 0) + 1)
  return [...counts].map(([why, n]) => plural(n, ...LEFT_OUT[why])).join(', ')
}

/** A format in words: where, what it looks like, and behind which words. */
export function formatText({ format }: Pick<TriedFormat, 'format'>): string {
  const shape = format.groups
    .map(({ least, most, behind }) => {
      const digits = least === most ? `${least} digits` : `${least} to ${most} digits`
      return behind === '' ? digits : `${digits}, ${SIGN[behind] ?? `“${behind}”`}`
    })
    .join(', ')
  const quoted = (words: readonly string[]) => words.map((word) => `“${word}”`).join(', ')
  return [
    `${format.takes ? 'Numbers' : 'No numbers'}${format.country ? ` of ${countryName(format.country)}` : ''}: ${format.startsWithPlus ? 'a plus, ' : ''}${shape}`,
    format.after.length > 0 ? `behind ${quoted(format.after)}` : '',
    format.notAfter.length > 0 ? `not behind ${quoted(format.notAfter)}` : '',
  ]
    .filter(Boolean)
    .join('; ')
}
const SIGN: Readonly<Record<string, string>> = { ' ': 'a space', '/': 'a slash', '-': 'a dash', '.': 'a dot' }

/** What a harvest comes to, as sentences. */
export function planText(plan: HarvestPlan): readonly string[] {
  const asked =
    plan.asked < plan.sites
      ? `The first ${plural(plan.asked, 'site')} of ${plan.sites} were asked for their rules; the others are when their turn comes.`
      : 'Every site was asked for its rules.'
  return [
    `${plural(plan.addresses, 'address', 'addresses')} at ${plural(plan.sites, 'site')}; at most ${plural(plan.mostPages, 'page')}, ${remaining(plan.mostSeconds)} and ${bytes(plan.mostBytes)}.`,
    plan.beyond > 0
      ? `${plural(plan.beyond, 'more site')} of these contacts ${plan.beyond === 1 ? 'is' : 'are'} left for another time: filter them to read ${plan.beyond === 1 ? 'it' : 'those'}.`
      : '',
    asked,
    plan.forbidden.length > 0
      ? `robots.txt forbids ${plural(plan.forbidden.length, 'site')}: ${few(plan.forbidden)}.`
      : '',
    plan.unreachable.length > 0 ? `Not reached: ${few(plan.unreachable)}.` : '',
    plan.slow.length > 0
      ? `Asked to wait longer between pages: ${few(plan.slow.map(({ site, seconds }) => `${site} (${seconds} s)`))}.`
      : '',
    plan.repeated > 0 ? `${plural(plan.repeated, 'address', 'addresses')} stood there more than once.` : '',
  ].filter(Boolean)
}

const FEW = 4
const few = (all: readonly string[]): string =>
  all.length <= FEW ? all.join(', ') : `${all.slice(0, FEW).join(', ')} and ${all.length - FEW} more`

const UNREAD: Readonly<Record<HarvestPlan['unread'][number]['why'], string>> = {
  'no-address': 'no address of a page',
  scheme: 'neither http nor https',
  private: 'a private address',
}
export const unreadText = ({ line, text, why }: HarvestPlan['unread'][number]): string =>
  `Line ${line}: “${text}” is ${UNREAD[why]}.`

import type { Audience, Delivery, Difference } from '@upper-field/contract'
import type { IdentifierKind, Purpose } from '@upper-field/core/send'
import { count, date, percent, plural, time } from '../words/format'

export const PURPOSE: Readonly<Record<Purpose, string>> = {
  aim: 'to aim at',
  exclude: 'to exclude',
  seed: 'seed of a larger one',
}

/** Ways to name somebody, as they are called. */
export const IDENTIFIER: Readonly<Record<IdentifierKind, string>> = {
  'personal-email': 'Personal e-mail',
  'work-email': 'Work e-mail',
  mobile: 'Mobile',
  'other-number': 'Other number',
  'name-and-place': 'Name and postal code',
  device: 'Advertising id',
  'company-page': 'Page of the company',
  site: 'Site',
  'company-name': 'Name of the company',
}

const STATE: Readonly<Record<Audience['state'], string>> = {
  'not-sent': 'not sent',
  received: 'received there',
  matching: 'being matched',
  usable: 'usable',
  refused: 'refused',
  lapsed: 'lapsed',
}

/** How an audience stands at its network. */
export const stateText = ({ state }: Pick<Audience, 'state'>): string => STATE[state]

export type Tone = 'good' | 'look' | 'bad' | 'soft'

export interface Told {
  readonly text: string
  readonly tone: Tone
}

/** How many are matched, as far as anybody was told. @param toldFrom the size from which the network tells */
export function matchedText(
  {
    state,
    matched,
    people,
    forecast,
    refusal,
  }: Pick<Audience, 'state' | 'matched' | 'people' | 'forecast' | 'refusal'>,
  toldFrom: number | null,
): Told {
  if (state === 'not-sent')
    return { text: forecast ? `not sent, forecast ${forecastText(forecast)}` : 'not sent', tone: 'soft' }
  if (state === 'refused') return { text: refusal?.says ?? 'refused', tone: 'bad' }
  if (state === 'lapsed') return { text: 'lapsed: nobody is in it any more', tone: 'bad' }
  if (state !== 'usable') return { text: STATE[state], tone: 'look' }
  if (matched === null)
    return { text: toldFrom === null ? 'not told' : `not told under ${count(toldFrom)}`, tone: 'soft' }
  if (people === 0) return { text: plural(matched, 'person', 'people'), tone: 'good' }
  const foretold = forecast
    ? `, forecast ${Math.round((100 * forecast.low) / forecast.people)}–${percent(forecast.high / forecast.people)}`
    : ''
  return { text: `${percent(matched / people)}${foretold}`, tone: 'good' }
}

const DAY = 86_400_000

/** Whole days from now until then; negative where it is past. */
const daysTo = (iso: string, now: number): number => Math.ceil((Date.parse(iso) - now) / DAY)

/** When an audience wants doing something about. @param fewestMatched how many its network wants matched */
export function dueText(
  {
    lapsesAt,
    dueAt,
    state,
    keepsDays,
    forecast,
  }: Pick<Audience, 'lapsesAt' | 'dueAt' | 'state' | 'keepsDays' | 'forecast'>,
  now: number,
  fewestMatched: number | null = null,
): Told {
  if (state === 'not-sent' && forecast && fewestMatched !== null && forecast.high < fewestMatched)
    return { text: `below the minimum of ${count(fewestMatched)} matched`, tone: 'bad' }
  if (state === 'lapsed') return { text: 'lapsed', tone: 'bad' }
  const lapse = lapsesAt !== null && daysTo(lapsesAt, now) <= 7 ? `lapses ${date(lapsesAt)}` : ''
  const days = dueAt === null ? null : daysTo(dueAt, now)
  if (days !== null && days <= 0) return { text: lapse ? `refresh due, ${lapse}` : 'refresh due', tone: 'bad' }
  if (lapse !== '' && lapsesAt !== null) return { text: lapse, tone: daysTo(lapsesAt, now) <= 3 ? 'bad' : 'look' }
  if (days === null) return { text: '', tone: 'soft' }
  if (keepsDays !== null && lapsesAt !== null && days > 300) return { text: `lapses ${date(lapsesAt)}`, tone: 'soft' }
  return { text: `refresh in ${plural(days, 'day')}`, tone: 'soft' }
}

/** The most pressing first: what is refused, who must leave, what is due or lapses, what was not sent. */
export function byPressure(a: Audience, b: Audience, now: number): number {
  return (
    pressureOf(b, now) - pressureOf(a, now) ||
    (a.dueAt ?? LATEST).localeCompare(b.dueAt ?? LATEST) ||
    b.createdAt.localeCompare(a.createdAt)
  )
}

/** Behind every date there is. */
const LATEST = '9'

function pressureOf(audience: Audience, now: number): number {
  if (audience.owedRemovals > 0) return 5
  if (audience.state === 'refused' || audience.state === 'lapsed') return 4
  const { tone } = dueText(audience, now)
  if (tone === 'bad') return 3
  if (tone === 'look') return 2
  return audience.state === 'not-sent' ? 1 : 0
}

/** Whether what is told of an audience is otherwise in a moment, with nobody doing anything: its network is at work, or it is being counted. */
export const isChanging = ({ state, isBehind }: Pick<Audience, 'state' | 'isBehind'>): boolean =>
  state === 'received' || state === 'matching' || isBehind

/** Who came and who left since the last edition; that nobody has is not said while it is being counted. */
export function sinceText({
  cameSince,
  leftSince,
  lastEditionAt,
  isBehind,
}: Pick<Audience, 'cameSince' | 'leftSince' | 'lastEditionAt' | 'isBehind'>): string {
  if (lastEditionAt === null) return ''
  if (cameSince + leftSince === 0) return isBehind ? '' : 'no change'
  return `+${count(cameSince)} −${count(leftSince)}`
}

/** What the button that sends says: how many, which way, and to which account. */
export function sendText({ way, comes, leaves, people, renewed }: Difference, account: string): string {
  if (way === 'whole') return `Send all ${count(people)} anew to ${account}`
  const parts = [
    comes > 0 || leaves === 0 ? `${count(comes)} in` : '',
    leaves > 0 ? `${count(leaves)} out` : '',
    renewed > 0 ? `${count(renewed)} again` : '',
  ]
  return `Send ${parts.filter(Boolean).join(', ')} to ${account}`
}

/** True where sending an edition would change nothing. */
export const isNoChange = ({ way, comes, leaves, renewed, suppressedSince }: Difference): boolean =>
  comes + leaves + renewed + suppressedSince === 0 && (way === 'changes' || way === 'whole')

const DELIVERED: Readonly<Record<Delivery['state'], string>> = {
  'under-way': 'under way',
  done: 'sent',
  refused: 'refused',
  failed: 'failed',
  stopped: 'stopped',
}

/** One delivery in a line. */
export function deliveryText({ state, way, added, removed, renewed, refusedLines, matched }: Delivery): string {
  const parts = [
    way === 'removals' ? 'removals' : '',
    added > 0 ? `${count(added)} in` : '',
    removed > 0 ? `${count(removed)} out` : '',
    renewed > 0 ? `${count(renewed)} again` : '',
    refusedLines > 0 ? `${count(refusedLines)} refused` : '',
    matched === null ? '' : `${count(matched)} matched`,
  ]
  const what = parts.filter(Boolean).join(', ')
  return what === '' ? DELIVERED[state] : `${DELIVERED[state]}: ${what}`
}

export const deliveryTime = ({ startedAt, startedBy }: Delivery): string =>
  `${time(startedAt)}, ${startedBy ?? 'by itself'}`

/** The interval of a forecast as people. */
export const forecastText = ({ low, high }: { readonly low: number; readonly high: number }): string =>
  low === high ? `about ${count(low)}` : `${count(low)} to ${count(high)}`

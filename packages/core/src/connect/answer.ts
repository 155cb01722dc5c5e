import { plainAt, valuesAt } from '../answerPaths'
import type { AnswerField, Answers, Connector, Statement, Way } from './connector'

/** What one item of an answer tells. */
export type AnswerItem = Readonly<Partial<Record<AnswerField, string | number | boolean>>>

export type AnswerProblem =
  /** Nothing that can be read where the answer should stand. */
  | 'odd-answer'
  /** More items than were asked for. */
  | 'too-many-items'

export type ReadAnswer =
  | { readonly status: 'read'; readonly items: readonly AnswerItem[] }
  | { readonly status: 'odd'; readonly problem: AnswerProblem }

/** Most items of an answer about one contact or number. */
export const MOST_ITEMS = 20
/** A text of an answer that is longer than this is none of the facts. */
const LONGEST_TEXT = 500

/**
 * Reads the items of an answer.
 * @param json the parsed answer
 * @param most how many items there may be
 */
export function readItems(connector: Connector, way: Way, json: unknown, most = MOST_ITEMS): ReadAnswer {
  if (json === null || typeof json !== 'object') return { status: 'odd', problem: 'odd-answer' }
  const found = valuesAt(way.items, json)
  if (found.length > most) return { status: 'odd', problem: 'too-many-items' }
  if (found.length === 0) return isEmptyList(way.items, json) ? NOTHING : { status: 'odd', problem: 'odd-answer' }
  const items = found.map((value) => itemOf(connector, value))
  return { status: 'read', items: items.filter((item) => Object.keys(item).length > 0) }
}

const NOTHING: ReadAnswer = { status: 'read', items: [] }

/** No items stand where there is an empty list for them; nothing at all is another thing. */
function isEmptyList(path: string, json: unknown): boolean {
  const parent = path.replace(/\[\*\]$|\.\*$/, '')
  if (parent === path) return false
  return valuesAt(parent, json).some((value) => value === null || (Array.isArray(value) && value.length === 0))
}

function itemOf({ fields, words }: Connector, json: unknown): AnswerItem {
  if (json === null || typeof json !== 'object') return {}
  const item: Partial<Record<AnswerField, string | number | boolean>> = {}
  for (const [name, path] of Object.entries(fields) as [AnswerField, string][]) {
    const value = plainAt(path, json)
    if (value === undefined || (typeof value === 'string' && value.length > LONGEST_TEXT)) continue
    item[name] = words[name]?.[String(value)] ?? value
  }
  return item
}

const MICROS = 1_000_000

/** What one charge costs by the answer's own word, in millionths of a euro; null where it tells nothing of it. */
export function readPrice({ charge, isPaidFor }: Connector, json: unknown): number | null {
  if (isPaidFor || charge.toldAt === undefined || json === null || typeof json !== 'object') return null
  return microsOf(plainAt(charge.toldAt, json))
}

/** Euros of an answer in millionths; null where it is no amount. */
export function microsOf(told: string | number | boolean | undefined): number | null {
  const euros = typeof told === 'boolean' || told === undefined || told === '' ? Number.NaN : Number(told)
  return Number.isFinite(euros) && euros >= 0 ? Math.round(euros * MICROS) : null
}

export type Poll =
  | { readonly status: 'working' }
  | { readonly status: 'ready' }
  | { readonly status: 'odd'; readonly problem: AnswerProblem }

/** Whether an answer that is looked for is there. */
export function readState(answers: Extract<Answers, { how: 'polling' }>, json: unknown): Poll {
  const state = json === null || typeof json !== 'object' ? undefined : plainAt(answers.state, json)
  if (state === undefined) return { status: 'odd', problem: 'odd-answer' }
  return { status: answers.working.includes(String(state)) ? 'working' : 'ready' }
}

/** The receipt of a question that is answered later; null where there is none. */
export function readReceipt(answers: Extract<Answers, { how: 'polling' }>, json: unknown): string | null {
  const receipt = json === null || typeof json !== 'object' ? undefined : plainAt(answers.receipt, json)
  return receipt === undefined || String(receipt) === '' ? null : String(receipt)
}

/** What a service says it has charged on one day. */
export interface StatementDay {
  readonly day: string
  readonly charges: number
  /** In millionths of a euro. */
  readonly amount: number
}

/** A month has no more days than these, in whatever time zone. */
const MOST_DAYS = 32

/** The days of a statement; null where it cannot be read. */
export function readStatement(
  { items, day, charges, euros }: Statement,
  json: unknown,
): readonly StatementDay[] | null {
  if (json === null || typeof json !== 'object') return null
  const found = valuesAt(items, json)
  if (found.length > MOST_DAYS || (found.length === 0 && !isEmptyList(items, json))) return null
  const days = found.map((line) => ({
    day: String(plainAt(day, line) ?? ''),
    charges: Number(plainAt(charges, line)),
    amount: Math.round(Number(plainAt(euros, line)) * MICROS),
  }))
  const isRead = days.every(
    (one) => /^\d{4}-\d\d-\d\d$/.test(one.day) && Number.isFinite(one.charges) && Number.isFinite(one.amount),
  )
  return isRead ? days : null
}

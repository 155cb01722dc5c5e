import { plainAt, valuesAt } from '../answerPaths'
import { microsOf } from './answer'
import type { Directory, LookUp } from './connector'

/** A trade or a place, as a directory names it. */
export interface Named {
  readonly code: string
  readonly name: string
}

/** Most trades or places of one answer that are shown. */
const MOST_NAMED = 50

const isJson = (json: unknown): json is object => json !== null && typeof json === 'object'

/** The trades or places an answer tells of; null where it cannot be read. */
export function readNamed({ items, code, name }: LookUp, json: unknown): readonly Named[] | null {
  if (!isJson(json)) return null
  const found = valuesAt(items, json)
    .slice(0, MOST_NAMED)
    .map((one) => ({ code: textAt(code, one) ?? '', name: (textAt(name, one) ?? '').slice(0, 200) }))
  return found.every((one) => one.code !== '' && one.name !== '') ? found : null
}

/** What becomes of a business that a directory tells of. */
export const RECORD_STATES = ['taken', 'there-already', 'suppressed', 'closed', 'told-before'] as const
export type RecordState = (typeof RECORD_STATES)[number]

/** How many businesses there are, before anything is paid. */
export interface Counted {
  readonly total: number
  /** Of those, how many are left out as known. */
  readonly leftOut: number
  /** What one charge costs now, in millionths of a euro; null where it is not told. */
  readonly price: number | null
}

/** Reads a count; null where there is none, or it contradicts itself. */
export function readCount({ total, leftOut, price }: Directory['count'], json: unknown): Counted | null {
  const all = wholeAt(total, json)
  if (all === null) return null
  const known = leftOut === null ? 0 : (wholeAt(leftOut, json) ?? 0)
  if (known > all) return null
  return { total: all, leftOut: known, price: price === null ? null : microsOf(plainAt(price, json)) }
}

/** What a page of businesses tells besides them. */
export interface PageEnd {
  /** What the next page is asked for by; null behind the last one. */
  readonly next: string | null
  readonly leftOut: number
}

export const readPageEnd = ({ next, leftOut }: Directory, json: unknown): PageEnd => ({
  next: textAt(next, json),
  leftOut: leftOut === null ? 0 : (wholeAt(leftOut, json) ?? 0),
})

function textAt(path: string, json: unknown): string | null {
  const value = isJson(json) ? plainAt(path, json) : undefined
  return value === undefined || value === '' || String(value).length > 500 ? null : String(value)
}

function wholeAt(path: string, json: unknown): number | null {
  const value = Number(textAt(path, json) ?? Number.NaN)
  return Number.isSafeInteger(value) && value >= 0 ? value : null
}

/** What decides what pages of a directory cost. */
export interface PageTerms {
  readonly per: 'call' | 'candidate'
  /** One charge, in millionths of a euro. */
  readonly price: number
  readonly perPage: number
}

/** The most that so many businesses cost, in millionths of a euro. */
export const mostForBusinesses = ({ per, price, perPage }: PageTerms, businesses: number): number =>
  price * (per === 'call' ? Math.ceil(businesses / perPage) : businesses)

/** How many businesses the next page may hold so that it cannot cost more than is left; 0 where none may. */
export function sizeWithin({ per, price, perPage }: PageTerms, left: number): number {
  if (price === 0) return perPage
  const charges = Math.max(0, Math.floor(left / price))
  return per === 'call' ? (charges > 0 ? perPage : 0) : Math.min(perPage, charges)
}

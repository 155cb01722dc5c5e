import { readPhoneCell } from '../phone'
import { isOtherByMarks, sayingOf } from './around'
import type { Business } from './business'
import { formatOf, type NumberFormat } from './formats'
import { type LeftOutThing, whyLeftOut } from './leftOut'
import type { Block, Page } from './page'
import { runsIn } from './runs'

/** How a value was found on a page. */
export const FOUND_HOW = ['link', 'structured-data', 'table', 'label', 'taught', 'text'] as const
export type FoundHow = (typeof FOUND_HOW)[number]

export interface Finding {
  readonly kind: 'number' | 'email'
  /** E.164, or the address in small letters. */
  readonly value: string
  /** As it stands on the page. */
  readonly raw: string
  readonly how: FoundHow
  /** From 0 to 1. */
  readonly confidence: number
  /** A short quotation around it. */
  readonly quote: string
}

const CONFIDENCE: Readonly<Record<FoundHow, number>> = {
  link: 0.98,
  'structured-data': 0.97,
  table: 0.92,
  label: 0.9,
  taught: 0.85,
  text: 0.6,
}
/** Without a word, and written as one run of digits that could be anything. */
const BARE = 0.35
/** The reading itself is in doubt. */
const DOUBT = 0.6
const QUOTE = 40

const MOST_DIGITS = 20
/** Dates, hours, decimals and groups of thousands are written with the same signs. */
const DATE = /^(?:\d{1,2}[./-]\d{1,2}[./-]\d{2,4}|\d{4}[./-]\d{1,2}[./-]\d{1,2})$/
const DATE_RANGE = /^\d{1,2}[./]\d{1,2}[./]?(?:\d{2,4})?\s*[-–—]\s*\d{1,2}[./]\d{1,2}[./]?(?:\d{2,4})?$/
const YEARS = /^(?:19|20)\d\d\s*[-–—/]\s*(?:19|20)\d\d$/
const HOURS = /^\d{1,2}[.:]\d\d\s*[-–—]\s*\d{1,2}[.:]\d\d/
const DECIMAL = /^\d{1,3}\.\d{3,}$|^\d{1,3}(?:[.,]\d{3})+(?:[.,]\d{1,2})?$/
const IP = /^(?:\d{1,3}\.){3}\d{1,3}$/

interface FoundNumbers {
  readonly numbers: readonly Finding[]
  readonly leftOut: readonly LeftOutThing[]
}

interface Known {
  readonly country: string | null
  readonly formats: readonly NumberFormat[]
}

/** Numbers on a page, in the order in which they stand, each as often as it stands there. */
export function findNumbers(page: Page, business: Business | null, known: Known): FoundNumbers {
  const { country } = known
  const inBlocks = page.blocks.map((block) => numbersOfBlock(block, known))
  return {
    numbers: [
      ...page.links.flatMap(({ href, text }) => numbersOfLink(href, text, country)),
      ...(business?.telephones ?? []).flatMap((raw) => read(raw, country, 'structured-data', raw, 1)),
      ...inBlocks.flatMap(({ numbers }) => numbers),
    ],
    leftOut: inBlocks.flatMap(({ leftOut }) => leftOut),
  }
}

function numbersOfLink(href: string, text: string, country: string | null): readonly Finding[] {
  const dialled = /^(?:tel|callto|sms):\/*(.+)$/i.exec(href)?.[1]
  if (dialled === undefined) return []
  const decoded = decodedText(dialled)
  return read(decoded, country, 'link', text.replace(/\s+/g, ' ').trim() || decoded, 1)
}

function decodedText(text: string): string {
  try {
    return decodeURIComponent(text)
  } catch {
    return text
  }
}

function numbersOfBlock({ text, before, isCell }: Block, { country, formats }: Known): FoundNumbers {
  const numbers: Finding[] = []
  const leftOut: LeftOutThing[] = []
  for (const { raw, at, end, own } of runsIn(text)) {
    const quote = quoteOf(text, at, end)
    const taught = formatOf({ raw, before: own }, country, formats)
    if (taught) {
      if (taught.takes) numbers.push(...readTaught(raw, taught.country ?? country, quote))
      else leftOut.push({ raw, why: 'taught' })
      continue
    }
    const said = sayingOf(own)
    const saying = said === 'nothing' && isCell && own.trim() === '' ? sayingOf(before) : said
    const isOther = isOtherThing(raw) || isOtherByMarks(text.slice(0, at), text.slice(end)) || saying === 'other'
    if (isOther) leftOut.push({ raw, why: whyLeftOut(raw, own.trim() === '' ? before : own, text.slice(end)) })
    if (isOther || isWithinWord(text, at, end)) continue
    const how: FoundHow = saying === 'telephone' ? (isCell ? 'table' : 'label') : 'text'
    const digits = raw.replace(/\D/g, '')
    numbers.push(...read(raw, country, how, quote, digits.length > MOST_DIGITS ? DOUBT : 1))
  }
  return { numbers, leftOut }
}

/** What is glued to letters is a part of a word: a part number, a hash, a file name. */
const isWithinWord = (text: string, at: number, end: number): boolean =>
  /[\p{L}\p{N}_@]$/u.test(text.slice(0, at)) || /^[\p{L}\p{N}_@]/u.test(text.slice(end))

const isOtherThing = (raw: string): boolean =>
  [DATE, DATE_RANGE, YEARS, HOURS, DECIMAL, IP].some((pattern) => pattern.test(raw.trim()))

function read(raw: string, country: string | null, how: FoundHow, quote: string, worth: number): readonly Finding[] {
  const { numbers, verdict } = readPhoneCell(raw, { country })
  const isSure = verdict === 'clean' || verdict === 'repaired'
  if (!isSure && verdict !== 'doubtful') return []
  const isBare = how === 'text' && !/^\s*(?:\+|00)/.test(raw) && /^\d+$/.test(raw.trim())
  const base = isBare ? BARE : CONFIDENCE[how]
  return numbers
    .filter(({ valid, label }) => valid && label !== 'fax')
    .map(({ e164 }) => ({
      kind: 'number' as const,
      value: e164,
      raw: raw.trim(),
      how,
      confidence: round(base * worth * (isSure ? 1 : DOUBT)),
      quote,
    }))
}

/** What is written in a taught format is one number, whatever signs stand in it. */
const readTaught = (raw: string, country: string | null, quote: string): readonly Finding[] =>
  read(raw.replace(/[^\d+]/g, ''), country, 'taught', quote, 1).map((one) => ({ ...one, raw }))

const round = (n: number): number => Math.round(n * 100) / 100

export const quoteOf = (text: string, at: number, end: number): string => {
  const from = Math.max(0, at - QUOTE)
  const to = Math.min(text.length, end + QUOTE)
  return `${from > 0 ? '…' : ''}${text.slice(from, to)}${to < text.length ? '…' : ''}`.replace(/\s+/g, ' ').trim()
}

import { readPhoneCell } from '../phone'
import { readCountry } from '../table'
import { DATE_STEP, FIRST_STEP, isPlainStep, type PlainStep, whyNoStep } from './normalSteps'

/** Everything that stands for a space or for nothing at all: white space, no-break spaces, zero-width characters, marks of byte order. */
const SPACE = '[\\s\\u180E\\u200B-\\u200D\\u2060\\uFEFF]'
const OUTER_SPACE = new RegExp(`^${SPACE}+|${SPACE}+$`, 'gu')
const ANY_SPACE = new RegExp(`${SPACE}+`, 'gu')

/** Letters that no decomposition brings to ASCII, as they are written where there are no others. */
const LETTERS: Readonly<Record<string, string>> = {
  ß: 'ss',
  ẞ: 'SS',
  ø: 'o',
  Ø: 'O',
  ł: 'l',
  Ł: 'L',
  æ: 'ae',
  Æ: 'AE',
  œ: 'oe',
  Œ: 'OE',
  đ: 'd',
  Đ: 'D',
  ı: 'i',
}
const LETTER = new RegExp(`[${Object.keys(LETTERS).join('')}]`, 'g')

/** What a step may need to know besides the value. */
export interface NormalContext {
  /** ISO 3166-1 alpha-2: where a number without a code is dialled, and in which order a date is written. */
  readonly country: string | null
}

type Step = (value: string, context: NormalContext) => string

/** Steps without a setting, by name. */
const PLAIN: Readonly<Record<PlainStep, Step>> = {
  trim: (value) => (PLAIN_TEXT.test(value) ? value : value.replace(OUTER_SPACE, '')),
  compose: (value) => (PLAIN_TEXT.test(value) ? value : value.normalize('NFC')),
  lower: (value) => value.toLowerCase(),
  upper: (value) => value.toUpperCase(),
  'no-tag': withoutTag,
  'no-dots': withoutDots,
  e164: toE164,
  digits: toDigits,
  'no-punctuation': (value) => value.replace(/[\p{P}\p{S}]/gu, ''),
  'one-space': (value) => (PLAIN_TEXT.test(value) ? value : value.replace(ANY_SPACE, ' ')),
  'no-space': (value) => (PLAIN_TEXT.test(value) ? value : value.replace(ANY_SPACE, '')),
  ascii: toAscii,
  country: (value) => readCountry(value) ?? '',
  host: toHost,
}

/**
 * Brings a value into a normal form: named steps, one after the other. A value a step cannot read (no number, no country,
 * no date) is blank from then on, and what is blank stays blank. Throws an error with a sentence for an unknown step.
 */
export function normalForm(value: string, form: readonly string[], context: NormalContext = { country: null }): string {
  let text = value
  for (const step of stepsOf(form)) {
    if (text === '') return ''
    text = step(text, context)
  }
  return text
}

const known = new WeakMap<readonly string[], readonly Step[]>()

/** The steps of a form, looked up once for all values it is used on. */
function stepsOf(form: readonly string[]): readonly Step[] {
  const found = known.get(form)
  if (found) return found
  const steps = form.map(stepOf)
  known.set(form, steps)
  return steps
}

/** Letters of ASCII that are no space: most values, on which these steps have nothing to do. */
const PLAIN_TEXT = /^[!-~]*$/

function stepOf(step: string): Step {
  if (isPlainStep(step)) return PLAIN[step]
  const first = FIRST_STEP.exec(step)?.[1]
  if (first !== undefined) return (value) => [...value].slice(0, Number(first)).join('')
  const pattern = DATE_STEP.exec(step)?.[1]
  if (pattern !== undefined) return (value, { country }) => writeDate(value, pattern, country)
  throw new Error(whyNoStep(step) ?? `There is no step "${step}".`)
}

/** `name+tag@host` is the letter box of `name@host`. */
function withoutTag(value: string): string {
  const at = value.lastIndexOf('@')
  const plus = value.indexOf('+')
  return at > 0 && plus > 0 && plus < at ? value.slice(0, plus) + value.slice(at) : value
}

/** Dots before the @, which some hosts do not count. */
function withoutDots(value: string): string {
  const at = value.lastIndexOf('@')
  return at < 0 ? value : value.slice(0, at).replaceAll('.', '') + value.slice(at)
}

function toE164(value: string, { country }: NormalContext): string {
  const [number] = readPhoneCell(value, { country }).numbers
  return number?.valid ? number.e164 : ''
}

/** Digits of any script, as ASCII ones. */
function toDigits(value: string): string {
  let digits = ''
  for (const { 0: letter } of value.matchAll(/\p{Nd}/gu)) digits += String(digitOf(letter))
  return digits
}

/** Decimal digits stand in runs of ten from zero to nine in every script (Unicode, section 4.6). */
function digitOf(letter: string): number {
  const code = letter.codePointAt(0) ?? 0
  if (code < 0x80) return code - 0x30
  let zero = code
  while (code - zero < 9 && /\p{Nd}/u.test(String.fromCodePoint(zero - 1))) zero--
  return code - zero
}

function toAscii(value: string): string {
  const bare = value.normalize('NFD').replace(/\p{M}/gu, '')
  return bare.replace(LETTER, (letter) => LETTERS[letter] ?? letter).normalize('NFC')
}

/** The host of a web address or a letter box, without `www.`. */
function toHost(value: string): string {
  const host = /^(?:[a-z][a-z0-9+.-]*:\/\/)?(?:[^/?#]*@)?([^/?#:@\s]+)/i.exec(value)?.[1] ?? ''
  return host.includes('.') ? host.toLowerCase().replace(/^(?:www\.)+/, '') : ''
}

/** Countries that write the month before the day. */
const MONTH_FIRST: ReadonlySet<string> = new Set(['US', 'PH'])

function writeDate(value: string, pattern: string, country: string | null): string {
  const date = readDate(value.trim(), country)
  if (!date) return ''
  return pattern.replace(/YYYY|YY|MM|DD/g, (part) =>
    part === 'YYYY' ? date.year : part === 'YY' ? date.year.slice(2) : part === 'MM' ? date.month : date.day,
  )
}

interface DateParts {
  readonly year: string
  readonly month: string
  readonly day: string
}

/** A date with the year first, or with the year last in the order of the country. Null for what is none. */
function readDate(text: string, country: string | null): DateParts | null {
  const yearFirst = /^(\d{4})[-./]?(\d{1,2})[-./]?(\d{1,2})(?:[T ].*)?$/.exec(text)
  if (yearFirst) return dateOf(yearFirst[1], yearFirst[2], yearFirst[3])
  const yearLast = /^(\d{1,2})[-./ ](\d{1,2})[-./ ](\d{4})$/.exec(text)
  if (!yearLast) return null
  const [, first, second, year] = yearLast
  const inOrder = MONTH_FIRST.has(country ?? '') ? dateOf(year, first, second) : dateOf(year, second, first)
  return inOrder ?? (MONTH_FIRST.has(country ?? '') ? dateOf(year, second, first) : dateOf(year, first, second))
}

function dateOf(year = '', month = '', day = ''): DateParts | null {
  const [y, m, d] = [Number(year), Number(month), Number(day)]
  const date = new Date(Date.UTC(y, m - 1, d))
  if (date.getUTCFullYear() !== y || date.getUTCMonth() !== m - 1 || date.getUTCDate() !== d) return null
  return { year, month: month.padStart(2, '0'), day: day.padStart(2, '0') }
}

import { digitsOf } from './characters'
import { joined } from './judgeNumbers'
import { withoutLabels } from './labels'
import { type OneNumber, readOneNumber } from './readOneNumber'
import { type Likeness, partNumbers } from './severalNumbers'
import { numbersOfStem } from './sharedStem'
import { readLookalikes } from './spreadsheetDamage'
import type { NumberLabel, ReadNumber, Repair } from './types'
import { type WrittenCell, type WrittenNumber, writtenNumbers } from './writtenNumbers'

/** What the parts of a cell are. */
export interface Parts {
  readonly read: readonly OneNumber[]
  readonly repairs: readonly Repair[]
  readonly remark: string | null
  /** The digits are one number or several, and neither is likelier. */
  readonly isUnsure: boolean
}

/** Reads a cell of plain text: its words apart from its digits, then each number. */
export function readParts(text: string, country: string | null): Parts {
  const likenessOf = rememberLikeness(country)
  const cell = writtenNumbers(text, (digits) => likenessOf(digits) === 'stands')
  const parts = cell.numbers.map((written) => readWritten(written, likenessOf, cell.hasWords, country))
  const read = parts.flatMap(({ numbers }) => numbers)
  const among = cell.hasWords && !read.some(isGood) ? readOneNumber(withoutLabels(text), country) : null
  if (among?.status === 'read' && among.number.valid) return alone(among)
  const meant = readMeant(text, read, country)
  if (meant !== null) return alone(meant)
  return {
    read: cell.remark === null ? read : read.map((one) => besideRemark(one, text)),
    repairs: repairsOf(cell, read, parts),
    remark: joined([cell.remark, ...parts.flatMap(({ leftOver }) => leftOver)]),
    isUnsure: parts.some(({ isOneToo }) => isOneToo),
  }
}

const alone = (one: OneNumber): Parts => ({ read: [one], repairs: [], remark: null, isUnsure: false })

const LETTER_AT_DIGIT = /\d[OolI]|[OolI]\d/

/**
 * Letters beside digits as the digits they look like, where that makes one number of the whole text. Whatever was read
 * of all digits without them is the other reading; of some of the digits it is none.
 */
function readMeant(text: string, read: readonly OneNumber[], country: string | null): OneNumber | null {
  if (!LETTER_AT_DIGIT.test(text) || readLookalikes(text) === null) return null
  const meant = readOneNumber(text, country)
  if (meant.status !== 'read' || !meant.number.valid) return null
  const [other] = read
  const isOther = other?.status === 'read' && other.number.valid && read.length === 1 && holdsAll(other.number, text)
  return isOther ? { ...meant, rival: other.number, problem: 'two-readings' } : meant
}

/** The digits of a text end a number, but for zeros in front that are dialled and not written. */
const holdsAll = ({ e164 }: ReadNumber, text: string): boolean => e164.endsWith(digitsOf(text).replace(/^0+/, ''))

function repairsOf(cell: WrittenCell, read: readonly OneNumber[], parts: readonly ReadPart[]): readonly Repair[] {
  const repairs: Repair[] = []
  if (parts.some(({ isStem }) => isStem)) repairs.push('shared-stem')
  else if (read.length > 1) repairs.push('several-numbers')
  if (cell.hasWords && read.some(({ status }) => status === 'read')) repairs.push('label-taken-off')
  return repairs
}

const isGood = (one: OneNumber): boolean => one.status === 'placeholder' || (one.status === 'read' && one.number.valid)

/** Beside words that are no label only what needs no guess is a number: a lost zero is one, unless it is a mobile's. */
function besideRemark(one: OneNumber, text: string): OneNumber {
  if (one.status !== 'read') return one
  const isGuess = one.repairs.includes('lost-zero') && one.number.lineType !== 'mobile'
  const isLoose = !one.number.valid && !/^\W*(?:\+|0)/.test(text)
  return isGuess || isLoose ? { status: 'unread', problem: 'reference-number' } : one
}

/** What one stretch of digits is. */
interface ReadPart {
  readonly numbers: readonly OneNumber[]
  readonly leftOver: readonly string[]
  readonly isStem: boolean
  readonly isOneToo: boolean
}

function readWritten(
  written: WrittenNumber,
  likenessOf: (text: string) => Likeness,
  hasWords: boolean,
  country: string | null,
): ReadPart {
  const stem = numbersOfStem(written.text, likenessOf)
  const { numbers, leftOver } = stem
    ? { numbers: stem.isOneToo ? [written.text, ...stem.numbers] : stem.numbers, leftOver: [] }
    : partNumbers(written.text, likenessOf, hasWords)
  const named = written.leads || stem ? 0 : numbers.length - 1
  const last = numbers.length - 1
  return {
    numbers: numbers.map((text, at) =>
      withWords(
        readOneNumber(text, country),
        at === named ? written.label : null,
        at === last ? written.extension : null,
      ),
    ),
    leftOver,
    isStem: stem !== null,
    isOneToo: stem?.isOneToo ?? false,
  }
}

/** A number with what the words beside it say. */
function withWords(one: OneNumber, label: NumberLabel | null, extension: string | null): OneNumber {
  if (one.status !== 'read' || (label === null && extension === null)) return one
  const number = { ...one.number, label, extension: extension ?? one.number.extension }
  return { ...one, number, rival: one.rival && { ...one.rival, label, extension: number.extension } }
}

/** What a text is as one number; each is asked for several times. */
function rememberLikeness(country: string | null): (text: string) => Likeness {
  const known = new Map<string, Likeness>()
  return (text) => {
    const found = known.get(text) ?? likenessOf(readOneNumber(text, country))
    known.set(text, found)
    return found
  }
}

function likenessOf(one: OneNumber): Likeness {
  if (one.status === 'placeholder') return 'stands'
  if (one.status === 'unread' || !one.number.valid) return 'none'
  // What is a number only by a guess does not keep others together.
  if (one.problem === 'plus-missing' || one.problem === 'unsure-repair') return 'none'
  return one.problem === null && one.repairs.every((repair) => STANDING.has(repair)) ? 'stands' : 'mended'
}

/** Repairs of a number that is written in full. */
const STANDING: ReadonlySet<Repair> = new Set(['international-prefix', 'trunk-zero'])

import { percentDecoded } from '../percent'
import { remember } from '../remember'
import { plainCharacters } from './characters'
import { isEmptyCell } from './emptyWords'
import type { RegionRules } from './engine/tables'
import { joined, judgeNumbers, unreadable } from './judgeNumbers'
import { dialledByAddress, withoutMarkup } from './markup'
import { withoutOpenCarrier } from './oldForms'
import { recogniseOtherThing } from './otherThings'
import { homeOf } from './plan'
import { joinRepairs } from './readDialled'
import { readOneNumber } from './readOneNumber'
import { readParts } from './readParts'
import { readQuick } from './readQuick'
import { mendSpreadsheetDamage } from './spreadsheetDamage'
import type { Reading, ReadOptions, Repair } from './types'

const LONGEST_CELL = 500

const EMPTY: Reading = { verdict: 'empty', numbers: [], repairs: [], problem: null }

/** Cells that say nothing are short, and the same few. */
const SHORT = 8
const isNothing = remember((raw) => isEmptyCell(plainCharacters(raw).trim()), 1000)

/**
 * Reads one phone cell: every number in it, in order, with what had to be mended on the way.
 * The judgement of validity, country and line type is the reference's (npm `google-libphonenumber`).
 * @param raw the cell as it stood
 * @param options.country ISO 3166-1 alpha-2 of the row, else of the batch
 * @returns a reading; it never throws, and never invents a digit
 */
export function readPhoneCell(raw: string, { country = null }: ReadOptions = {}): Reading {
  if (raw.length <= SHORT && isNothing(raw)) return EMPTY
  const home = homeOf(country)
  return readQuick(raw, home) ?? readFully(raw, home)
}

/** The reading of any cell, step by step. */
export function readFully(raw: string, home: RegionRules | null): Reading {
  if (raw.length > LONGEST_CELL) return unreadable('cell-too-long')
  const text = withoutMarkup(plainCharacters(raw).trim())
  if (text === '' || isEmptyCell(text)) return EMPTY
  const decoded = percentDecoded(text)
  if (decoded !== null) return asRepaired(readFully(decoded, home), ['percent-encoding'])
  const damage = mendSpreadsheetDamage(dialledByAddress(text) ?? text)
  if (damage.status === 'digits-lost') return unreadable('digits-lost')
  if (damage.repairs.length > 0) {
    // What a spreadsheet hurt is plain digits once it is mended.
    const mended = readQuick(damage.text, home)
    if (mended) return asRepaired(mended, damage.repairs)
  }
  return readText(damage.text, damage.repairs, home?.region ?? null)
}

/** Nothing but digits: one number or none. */
const ONE_RUN = /^\+?\d+$/
const ALONE = { remark: null, isUnsure: false }

/** A cell that is plain text by now. */
function readText(text: string, before: readonly Repair[], country: string | null): Reading {
  if (ONE_RUN.test(text)) return judgeNumbers([readOneNumber(text, country)], { ...ALONE, repairs: before })
  const other = recogniseOtherThing(text)
  if (other !== null) return unreadable(other)
  const { text: bare, taken } = withoutEmails(withoutOpenCarrier(text))
  const repairs: readonly Repair[] = bare.length < text.length && taken === '' ? [...before, 'old-form'] : before
  const { read, isUnsure, ...parts } = readParts(bare, country)
  const reading = judgeNumbers(read, { repairs: joinRepairs(repairs, parts.repairs), remark: parts.remark, isUnsure })
  return taken === '' ? reading : { ...reading, remark: joined([taken, reading.remark ?? null]) ?? taken }
}

const EMAIL = /<?[^\s@<>,;:|/]+@[^\s@<>,;|/]+\.[^\s@<>,;|/]+>?/g

/** An e-mail beside a number is another value. */
function withoutEmails(text: string): { readonly text: string; readonly taken: string } {
  if (!text.includes('@')) return { text, taken: '' }
  return { text: text.replace(EMAIL, ' ').trim(), taken: (text.match(EMAIL) ?? []).join(' ') }
}

/** What was read only after something was mended before. */
function asRepaired(reading: Reading, before: readonly Repair[]): Reading {
  if (reading.numbers.length === 0) return reading
  const verdict = reading.verdict === 'clean' ? 'repaired' : reading.verdict
  return { ...reading, verdict, repairs: joinRepairs(before, reading.repairs) }
}

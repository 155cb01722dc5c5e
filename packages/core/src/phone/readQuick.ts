import { START, textOf } from './engine/digits'
import { found, foundCountry, foundLineType } from './engine/readDigits'
import type { RegionRules } from './engine/tables'
import { isFictionNumber, isLocalFiction, isPlaceholderRun } from './placeholders'
import { isTwofold, joinRepairs, LOST_ZERO, readDialled, TRUNK_ZERO, TWICE } from './readDialled'
import { digitsInFront, scanCell, scanned } from './scanCell'
import { mayBeSlip } from './sureness'
import type { Reading, ReadNumber, Repair } from './types'

const LEAST = 7
const PLACEHOLDER: Reading = { verdict: 'placeholder', numbers: [], repairs: [], problem: null }

/**
 * Reads the cells most lists are made of: one number or two, in digits and punctuation, with a label, an extension
 * or the common damages of a spreadsheet.
 * @param from where the cell starts in the text, and `until` where it ends
 * @returns null for every cell that needs a closer look: the full reading decides, and comes to the same where both do
 */
export function readQuick(raw: string, home: RegionRules | null, from = 0, until = raw.length): Reading | null {
  if (!scanCell(raw, from, until) || scanned.to < START + LEAST) return null
  const { slash, repairs, to } = scanned
  if (isPlaceholderRun(START, to) || (home?.code === 1 && isLocalFiction(START, to, home.region)))
    return scanned.hasLookalikes || slash !== -1 || repairs.length > 0 ? null : PLACEHOLDER
  const one = readScanned(raw, home)
  if (one !== null) return one
  return slash === -1 || repairs.length > 0 ? null : readBoth(raw, home, from, slash, until)
}

function readScanned(raw: string, home: RegionRules | null): Reading | null {
  const mended = readDialled(scanned.to, scanned.hasPlus, home)
  if (mended === null || (mended.length > 0 && needsCloserLook(raw, mended, home))) return null
  if (isFictionNumber(found.code.code, found.from, found.to) || isPlaceholderRun(found.from, found.to)) return null
  const repairs = joinRepairs(scanned.hasLookalikes ? LOOKALIKES : scanned.repairs, mended)
  return {
    verdict: repairs.length > 0 ? 'repaired' : 'clean',
    numbers: [foundNumber(raw)],
    repairs,
    problem: null,
  }
}

const needsCloserLook = (raw: string, mended: readonly Repair[], home: RegionRules | null): boolean =>
  isTwofold(mended) || (SLIPS.has(mended) && mayBeSlip(mended, digitsInFront(raw), scanned.to, home))

/** Repairs that a slip of a key may explain as well. */
const SLIPS: ReadonlySet<readonly Repair[]> = new Set([LOST_ZERO, TRUNK_ZERO, TWICE])

const SEVERAL: readonly Repair[] = ['several-numbers']
const LOOKALIKES: readonly Repair[] = ['letters-for-digits']

/** The number that was scanned and found. */
const foundNumber = (raw: string): ReadNumber => ({
  e164: isWritten()
    ? raw.slice(scanned.written, scanned.written + 1 + scanned.to - START)
    : textOf(found.code.plus, found.from, found.to),
  country: foundCountry(),
  lineType: foundLineType(),
  extension: scanned.extension,
  label: scanned.label,
  valid: true,
  possible: true,
})

/** True where the cell holds the number in its E.164 form already. */
const isWritten = (): boolean =>
  scanned.written !== -1 && found.to === scanned.to && found.from === START + found.code.text.length

/** Two numbers with a slash between them, where the whole is none. */
function readBoth(raw: string, home: RegionRules | null, from: number, slash: number, until: number): Reading | null {
  const first = readQuick(raw, home, from, slash)
  const second = first && readQuick(raw, home, slash + 1, until)
  const a = first?.numbers[0]
  const b = second?.numbers[0]
  if (!first || !second || !a || !b || first.numbers.length > 1 || second.numbers.length > 1) return null
  const isSame = a.e164 === b.e164 && a.extension === b.extension
  return {
    verdict: 'repaired',
    numbers: isSame ? [a] : [a, b],
    repairs: joinRepairs(SEVERAL, joinRepairs(first.repairs, second.repairs)),
    problem: null,
  }
}

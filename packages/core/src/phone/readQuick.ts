import { ASK_REFERENCE, readDigits } from './engine/readDigits'
import { recogniseOtherThing } from './otherThings'
import { isFictionNumber, isLocalFiction, isPlaceholderRun } from './placeholders'
import { asWritten } from './readOneNumber'
import type { Reading } from './types'

const SPACE = 0x20
const PLUS = 0x2b
const DASH = 0x2d
const DOT = 0x2e
const LEAST = 7
const LONGEST = 24

/**
 * Reads the cells most lists are made of: one number, in digits with single spaces, brackets, dots or dashes.
 * @returns null for every cell that needs a closer look: the full reading decides, and comes to the same where both do
 */
export function readQuick(raw: string, country: string | null): Reading | null {
  if (raw.length > LONGEST || raw.length < LEAST) return null
  let digits = ''
  let hasPlus = false
  let hasMarks = false
  let before = 0
  for (let i = 0; i < raw.length; i++) {
    const code = raw.charCodeAt(i)
    if (code >= 48 && code <= 57) digits += raw[i]
    else if (code === PLUS && i === 0) hasPlus = true
    else if (code === SPACE || code === DASH || code === DOT) {
      // Two signs in a row, or one at an end, may part two numbers or mean something else.
      if (i === 0 || i === raw.length - 1 || before === SPACE || before === DASH || before === DOT) return null
      if (code !== SPACE) hasMarks = true
    } else return null
    before = code
  }
  if (digits.length < LEAST) return null
  if (hasMarks && (recogniseOtherThing(raw) !== null || /\.0+$/.test(raw))) return null
  if (isPlaceholderRun(digits) || isLocalFiction(digits, country)) return null
  const plan = readDigits(digits, hasPlus, country)
  if (plan === null || plan === ASK_REFERENCE || !plan.valid) return null
  const found = asWritten(plan, digits, hasPlus, country)
  const { e164, country: region, lineType, national } = found.plan
  if (isFictionNumber(e164) || isPlaceholderRun(national)) return null
  return {
    verdict: found.repairs.length > 0 ? 'repaired' : 'clean',
    numbers: [{ e164, country: region, lineType, extension: null, label: null, valid: true, possible: true }],
    repairs: found.repairs,
    problem: null,
  }
}

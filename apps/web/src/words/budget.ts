const EURO = 1_000_000
const MOST_EUROS = 100_000

/** The budget a plan begins with, in euros, as it is typed. */
export const DEFAULT_BUDGET = '25'

/** Digits, and one sign before decimals. */
const PLAIN = /^(?:\d+(?:[.,]\d+)?|[.,]\d+)$/
/** Groups of three, and the other sign before decimals. */
const GROUPED = /^(?:\d{1,3}(?:,\d{3})+\.\d+|\d{1,3}(?:\.\d{3})+,\d+)$/
/** A thousand for some and one for others. */
const EITHER = /^[1-9]\d{0,2}[.,]\d{3}$/

/** An amount in millionths of a euro as it is typed, in euros; empty where there is none. */
export function eurosOf(amount: number | null): string {
  const text = amount === null ? '' : String(amount / EURO)
  return EITHER.test(text) ? `${text}0` : text
}

/**
 * What was typed as a budget, in millionths of a euro; null where it is none. `1,000` and `1.000` are none either: whoever
 * means a thousand would be understood as one, or the other way round.
 */
export function budgetOf(text: string): number | null {
  const digits = text.replace(/^\s*€|€\s*$|\s/g, '')
  if (EITHER.test(digits) || !(PLAIN.test(digits) || GROUPED.test(digits))) return null
  const [whole = '', decimals = ''] = digits.split(/[.,](?=\d*$)/)
  const micros = Math.round(Number(`${whole.replace(/\D/g, '')}.${decimals}`) * EURO)
  return micros > 0 && micros <= MOST_EUROS * EURO ? micros : null
}

const EURO = 1_000_000
const MOST_EUROS = 100_000

/** The budget a plan begins with, in euros, as it is typed. */
export const DEFAULT_BUDGET = '25'

/** An amount in millionths of a euro as it is typed, in euros; empty where there is none. */
export const eurosOf = (amount: number | null): string => (amount === null ? '' : String(amount / EURO))

/** What was typed as a budget, in millionths of a euro; null where it is none. */
export function budgetOf(text: string): number | null {
  const euros = Number(text.trim().replace(',', '.'))
  return text.trim() !== '' && Number.isFinite(euros) && euros > 0 && euros <= MOST_EUROS
    ? Math.round(euros * EURO)
    : null
}

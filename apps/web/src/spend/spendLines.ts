import type { SpendLine, SpendMonth } from '@upper-field/contract'
import { csvLine, harmlessCell } from '@upper-field/core/table'

/** Charges of several days by one service, for one list and purpose. */
export type SpendSum = Omit<SpendLine, 'day'>

/** The lines of all days put together, the dearest first. */
export function sumsOf(lines: readonly SpendLine[]): readonly SpendSum[] {
  const sums = new Map<string, SpendSum>()
  for (const { day: _, ...line } of lines) {
    const key = [line.provider, line.listId, line.reason].join()
    const known = sums.get(key)
    sums.set(
      key,
      known ? { ...known, charges: known.charges + line.charges, amount: known.amount + line.amount } : line,
    )
  }
  return [...sums.values()].sort((a, b) => b.amount - a.amount)
}

export interface SpendDay {
  readonly day: string
  readonly amount: number
}

const DAY = 86_400_000

/** What each of the last days cost, those without a charge too, the latest last. */
export function lastDays(lines: readonly SpendLine[], today: Date, days: number): readonly SpendDay[] {
  const amounts = new Map<string, number>()
  for (const { day, amount } of lines) amounts.set(day, (amounts.get(day) ?? 0) + amount)
  return Array.from({ length: days }, (_, i) => {
    const day = new Date(today.getTime() - (days - 1 - i) * DAY).toISOString().slice(0, 10)
    return { day, amount: amounts.get(day) ?? 0 }
  })
}

/** From this share of a limit on it is said that little is left. */
const NEARLY = 0.8

/** Where a month stands: nothing to say, little left, or nothing. */
export function standingOf({ limit, spent, promised }: SpendMonth): 'free' | 'enough' | 'nearly' | 'reached' {
  if (limit === null) return 'free'
  const taken = spent + promised
  return taken >= limit ? 'reached' : taken >= limit * NEARLY ? 'nearly' : 'enough'
}

const EURO = 1_000_000

/** The lines as a file: one for each day, service, list and purpose, in euros. */
export const csvOf = (lines: readonly SpendLine[]): string =>
  [
    ['day', 'service', 'list', 'purpose', 'charges', 'euros'],
    ...lines.map(({ day, name, list, reason, charges, amount }) => [
      day,
      name,
      list,
      reason,
      String(charges),
      (amount / EURO).toFixed(6),
    ]),
  ]
    .map((cells) => csvLine(cells.map(harmlessCell)))
    .join('')

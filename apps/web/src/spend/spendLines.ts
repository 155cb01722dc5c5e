import type { ServiceStatement, SpendLine, SpendMonth, UsableLine } from '@upper-field/contract'
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
export function standingOf({
  limit,
  spent,
  promised,
}: Pick<SpendMonth, 'limit' | 'spent' | 'promised'>): 'free' | 'enough' | 'nearly' | 'reached' {
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

/** What one usable value cost on a day: of all services, and of each. */
export interface UsableDay {
  readonly day: string
  readonly usable: number
  /** Null where money was spent and nothing found. */
  readonly each: number | null
  readonly byService: Readonly<Record<string, number | null>>
}

/** Usable values by day, the latest first, with the services that were asked, by their names. */
export function eachByDay(lines: readonly UsableLine[]): {
  readonly days: readonly UsableDay[]
  readonly services: readonly string[]
} {
  const services = [...new Set(lines.map(({ name }) => name))].sort()
  const days = [...new Set(lines.map(({ day }) => day))].sort().reverse()
  return {
    services,
    days: days.map((day) => {
      const mine = lines.filter((line) => line.day === day)
      const usable = mine.reduce((sum, line) => sum + line.usable, 0)
      const amount = mine.reduce((sum, line) => sum + line.amount, 0)
      return {
        day,
        usable,
        each: costOfEach(amount, usable),
        byService: Object.fromEntries(mine.map((line) => [line.name, costOfEach(line.amount, line.usable)])),
      }
    }),
  }
}

const costOfEach = (amount: number, usable: number): number | null =>
  usable === 0 ? null : Math.round(amount / usable)

/** All days of a statement together, by their books and by ours. */
export function sumOfStatement({ days }: ServiceStatement) {
  const sum = (whose: 'ours' | 'theirs') => ({
    charges: days.reduce((all, day) => all + day[whose].charges, 0),
    amount: days.reduce((all, day) => all + day[whose].amount, 0),
  })
  return { ours: sum('ours'), theirs: sum('theirs') }
}

/** Days on which their books and ours differ, and by how much theirs is more. */
export const differencesIn = ({
  days,
}: ServiceStatement): readonly { readonly day: string; readonly amount: number }[] =>
  days
    .filter(({ ours, theirs }) => ours.amount !== theirs.amount || ours.charges !== theirs.charges)
    .map(({ day, ours, theirs }) => ({ day, amount: theirs.amount - ours.amount }))

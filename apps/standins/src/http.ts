import { appendFileSync, existsSync, readFileSync } from 'node:fs'
import type { Context, Hono, MiddlewareHandler } from 'hono'
import { z } from 'zod'
import type { Fault } from './watched'

export const sleep = (milliseconds: number): Promise<void> =>
  new Promise((resolve) => setTimeout(resolve, milliseconds))

/** Refuses calls without the service's key. */
export const needsKey =
  (key: string): MiddlewareHandler =>
  async (c, next) =>
    c.req.header('authorization') === `Bearer ${key}` ? next() : c.json({ error: 'key refused' }, 401)

export const Person = z.object({
  name: z.string().default(''),
  company: z.string().default(''),
  domain: z.string().default(''),
  profile: z.string().optional(),
})

const DEARER = 1.5
const MICROS = 1_000_000

/** What one service has charged, a question once under its idempotency key. In millionths of a euro. */
export interface Ledger {
  charge(key: string, amount: number): void
  /** What an amount is just now, in euros. */
  priceNow(amount: number): number
  total(): number
  count(): number
  /** What was charged on each day of a month (YYYY-MM, UTC). */
  days(month: string): readonly { readonly day: string; readonly charges: number; readonly euros: number }[]
}

/** Where a ledger is kept beyond the end of the process: a line for each charge. */
export interface Book {
  lines(): readonly string[]
  append(line: string): void
}

/** A book in a file. */
export const bookIn = (path: string): Book => ({
  lines: () => (existsSync(path) ? readFileSync(path, 'utf8').split('\n').filter(Boolean) : []),
  append: (line) => appendFileSync(path, `${line}\n`),
})

/** @param faults with another price everything costs half as much again */
export function createLedger({ faults = new Set(), book }: Pick<StandInOptions, 'faults' | 'book'>): Ledger {
  const charged = new Map<string, number>()
  const daysOf = new Map<string, string>()
  for (const line of book?.lines() ?? []) {
    const [amount = '', day = '', key = ''] = line.split('\t')
    charged.set(key, Number(amount))
    daysOf.set(key, day)
  }
  const now = (amount: number) => (faults.has('another-price') ? Math.round(amount * DEARER) : amount)
  return {
    priceNow: (amount) => now(amount) / MICROS,
    charge: (key, amount) => {
      if (charged.has(key)) return
      charged.set(key, now(amount))
      const day = new Date().toISOString().slice(0, 10)
      daysOf.set(key, day)
      book?.append(`${now(amount)}\t${day}\t${key.replace(/[\t\n]/g, ' ')}`)
    },
    total: () => [...charged.values()].reduce((sum, amount) => sum + amount, 0),
    count: () => [...charged.values()].filter((amount) => amount > 0).length,
    days: (month) => {
      const days = new Map<string, { charges: number; amount: number }>()
      for (const [key, amount] of charged) {
        const day = daysOf.get(key) ?? ''
        if (amount === 0 || !day.startsWith(month)) continue
        const known = days.get(day) ?? { charges: 0, amount: 0 }
        days.set(day, { charges: known.charges + 1, amount: known.amount + amount })
      }
      return [...days]
        .map(([day, { charges, amount }]) => ({ day, charges, euros: amount / MICROS }))
        .sort((a, b) => a.day.localeCompare(b.day))
    },
  }
}

/** One service of the outside world, and its own books. */
export interface Service {
  readonly app: Hono
  readonly ledger: Ledger
}

export const keyOfCall = (c: Context, otherwise: string): string => c.req.header('idempotency-key') ?? otherwise

/** How much quicker than life the delays are just now. */
export interface Pace {
  speed: number
}

export interface StandInOptions {
  readonly pace: Pace
  /** What is made to go wrong just now. */
  readonly faults?: ReadonlySet<Fault>
  /** Where what is charged is written down; nowhere where none is given. */
  readonly book?: Book | undefined
}

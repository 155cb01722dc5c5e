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

/** What one service has charged, a question once under its idempotency key. In millionths of a euro. */
export interface Ledger {
  charge(key: string, amount: number): void
  total(): number
  count(): number
}

/** @param faults with another price everything costs half as much again */
export function createLedger(faults: ReadonlySet<Fault> = new Set()): Ledger {
  const charged = new Map<string, number>()
  return {
    charge: (key, amount) => {
      if (!charged.has(key)) charged.set(key, faults.has('another-price') ? Math.round(amount * DEARER) : amount)
    },
    total: () => [...charged.values()].reduce((sum, amount) => sum + amount, 0),
    count: () => [...charged.values()].filter((amount) => amount > 0).length,
  }
}

/** One service of the outside world, and its own books. */
export interface Service {
  readonly app: Hono
  readonly ledger: Ledger
}

export const keyOfCall = (c: Context, otherwise: string): string => c.req.header('idempotency-key') ?? otherwise

export interface StandInOptions {
  /** How much quicker than life the delays are. */
  readonly speed: number
  /** What is made to go wrong just now. */
  readonly faults?: ReadonlySet<Fault>
}

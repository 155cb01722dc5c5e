import type { MiddlewareHandler } from 'hono'
import { type StandInOptions, sleep } from './http'

/** What can be made to go wrong with a service, by hand or by a test. */
export const FAULTS = ['slow', 'down', 'nonsense', 'doubled', 'another-price'] as const
/** The same with an ad network: it refuses every second part, or has forgotten what it was sent. */
export const NETWORK_FAULTS = ['slow', 'down', 'nonsense', 'half-refused', 'forgetful'] as const
export type Fault = (typeof FAULTS)[number] | (typeof NETWORK_FAULTS)[number]

/** One question and its answer, as they went over the wire. */
export interface Exchange {
  readonly at: Date
  readonly asked: string
  readonly answered: string
}

/** What a service was asked, and what is made to go wrong with it. */
export interface Watch {
  readonly faults: Set<Fault>
  readonly exchanges: readonly Exchange[]
  asked(): number
}

/** Exchanges that are kept, the latest first. */
const KEPT = 25
const SHOWN = 400
const SLOW = 4000

/** Notes every exchange of a service and lets its faults happen. Answers that are made up are not charged. */
export function watch({ pace }: StandInOptions): { readonly watch: Watch; readonly handler: MiddlewareHandler } {
  const faults = new Set<Fault>()
  const exchanges: Exchange[] = []
  let count = 0
  const handler: MiddlewareHandler = async (c, next) => {
    count++
    const body = await c.req.text()
    if (faults.has('slow')) await sleep(SLOW / pace.speed)
    if (faults.has('down')) c.res = c.json({ error: 'down for repairs' }, 503)
    else if (faults.has('nonsense')) c.res = c.html('<html><body>Welcome!</body></html>')
    else await next()
    const answer = await c.res.clone().text()
    const url = new URL(c.req.url)
    exchanges.unshift({
      at: new Date(),
      asked: `${c.req.method} ${url.pathname}${url.search} ${body}`.trim().slice(0, SHOWN),
      answered: `${c.res.status} ${answer}`.slice(0, SHOWN),
    })
    exchanges.length = Math.min(exchanges.length, KEPT)
  }
  return { watch: { faults, exchanges, asked: () => count }, handler }
}

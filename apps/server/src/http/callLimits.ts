import type { Pool } from 'pg'
import { RateLimiterPostgres, RateLimiterRes } from 'rate-limiter-flexible'
import type { Limits } from '../limits'
import { Problem } from './problem'

/** Counts calls across all processes of the application. Each throws a problem where there were too many of late. */
export interface CallLimits {
  /** Attempts to make the first owner from one address. */
  setUp(client: string): Promise<void>
  /** Entering the demo from one address: no password is guessed, but each makes a session. */
  enterDemo(client: string): Promise<void>
  /** Rows that one person reads. */
  read(personId: string, rows: number): Promise<void>
}

const MINUTE = 60
const HOUR = 3600
/** Sessions of the demo that one address may begin in a minute. */
const ENTRIES = 60

export function createCallLimits(pool: Pool, limits: Limits): CallLimits {
  const limiter = (keyPrefix: string, points: number, duration: number) =>
    new RateLimiterPostgres({
      storeClient: pool,
      storeType: 'pool',
      tableName: 'call_limits',
      tableCreated: true,
      keyPrefix,
      points,
      duration,
    })
  const setUps = limiter('set-up', limits.setUps, MINUTE)
  const entries = limiter('demo', ENTRIES, MINUTE)
  const reads = limiter('read', limits.readRows, HOUR)
  return {
    setUp: (client) => take(setUps, client, 1, 'Too many attempts from this address.'),
    enterDemo: (client) => take(entries, client, 1, 'Too many sessions from this address.'),
    read: (personId, rows) => take(reads, personId, rows, 'You have read as many rows as one person may in an hour.'),
  }
}

async function take(limiter: RateLimiterPostgres, key: string, points: number, says: string): Promise<void> {
  try {
    await limiter.consume(key, points)
  } catch (error) {
    if (!(error instanceof RateLimiterRes)) throw error
    const seconds = Math.max(1, Math.ceil(error.msBeforeNext / 1000))
    throw new Problem(429, 'too-many', `${says} Try again in ${waitWords(seconds)}.`, { retryAfter: seconds })
  }
}

const waitWords = (seconds: number): string =>
  seconds < 120 ? `${seconds} seconds` : `${Math.ceil(seconds / 60)} minutes`

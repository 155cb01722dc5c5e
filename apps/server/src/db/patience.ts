import type { Config } from '../config'
import type { Patience } from './database'

/** Calls answer somebody who waits; jobs may take longer, but nothing waits without end. */
export function patienceOf({ limits }: Config, of: 'calls' | 'jobs'): Patience {
  const statement = of === 'calls' ? limits.statementSeconds : limits.jobStatementSeconds
  const connection = of === 'calls' ? limits.connectionSeconds : JOBS_CONNECTION
  return { connection, statement, lock: limits.lockSeconds }
}

/** A job may keep its thread busy for seconds: that must not look like a database that does not answer. In seconds. */
const JOBS_CONNECTION = 30

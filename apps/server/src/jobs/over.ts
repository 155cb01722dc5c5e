import { ENDED_STATES } from '@upper-field/contract'
import { type SQL, sql } from 'drizzle-orm'

const ENDED = ENDED_STATES.map((state) => `'${state}'`).join(', ')

/**
 * Whether a job has ended, as a condition: see `isOver` of the contract.
 * @param job the table of jobs, by the name it has in the statement
 */
export const isJobOver = (job = 'jobs'): SQL => sql.raw(`${job}.state in (${ENDED})`)

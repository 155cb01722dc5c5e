/** An error and what it came from, outermost first: libraries wrap what the driver says. */
function* causesOf(error: unknown): Generator<{
  readonly code?: unknown
  readonly message?: unknown
  readonly hint?: unknown
  readonly table?: unknown
}> {
  for (let at = error, depth = 0; at !== null && typeof at === 'object' && depth < 10; depth++) {
    yield at
    at = (at as { cause?: unknown }).cause
  }
}

const hasCode = (error: unknown, pattern: RegExp): boolean =>
  [...causesOf(error)].some(({ code }) => typeof code === 'string' && pattern.test(code))

const LOST_CODES = /^(?:08|57P0|53300|ECONN|EPIPE|ETIMEDOUT|EHOSTUNREACH|ENOTFOUND|EAI_AGAIN)/
const LOST_WORDS =
  /Connection terminated|connection error and is not queryable|Client was closed|timeout exceeded when trying to connect|Connection ended|Cannot use a pool after calling end/

/** The database went away, or has no connection left: what was tried can be tried again. */
export const isLostConnection = (error: unknown): boolean =>
  hasCode(error, LOST_CODES) || [...causesOf(error)].some(({ message }) => LOST_WORDS.test(String(message)))

/** PostgreSQL chose this transaction to give way to another: the same again may go through (SQLSTATE class 40). */
export const isGivenWay = (error: unknown): boolean => hasCode(error, /^40(?:001|P01)$/)

/** A lock was waited for as long as is allowed (SQLSTATE 55P03). */
export const isLockTimeout = (error: unknown): boolean => hasCode(error, /^55P03$/)

const DISK_FULL = '53100'

/** The disk is full, or a file of the database may not grow (SQLSTATE 53100; of other causes PostgreSQL gives the same hint). */
export const isDiskFull = (error: unknown): boolean =>
  [...causesOf(error)].some(({ code, hint }) => code === DISK_FULL || hint === 'Check free disk space.')

const SAME_KEY = '23505'

/**
 * A line with the same key is there already (SQLSTATE 23505).
 * @param inTable only where it is there
 */
export const isThereAlready = (error: unknown, inTable?: string): boolean =>
  [...causesOf(error)].some(({ code, table }) => code === SAME_KEY && (inTable === undefined || table === inTable))

/** A statement took longer than is allowed, or was given up on somebody's word (SQLSTATE 57014). */
export const isStatementTimeout = (error: unknown): boolean => hasCode(error, /^57014$/)

/** A value that PostgreSQL cannot hold or read (SQLSTATE class 22): it came with the call. */
export const isUnreadableValue = (error: unknown): boolean => hasCode(error, /^22(?:001|003|007|008|021|P02|P05)$/)

/** What is known of an error by its code and its words, all that is left of it on the way to another thread. */
export function whatFailed(error: unknown): { readonly code: string | null; readonly message: string } {
  const causes = [...causesOf(error)]
  const codes = causes.flatMap(({ code }) => (typeof code === 'string' ? code : []))
  return {
    code: isDiskFull(error) ? DISK_FULL : (codes.at(-1) ?? null),
    message: causes.map(({ message }) => String(message)).join('; '),
  }
}

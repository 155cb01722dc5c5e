import type { Context } from 'hono'
import { HTTPException } from 'hono/http-exception'
import {
  isDiskFull,
  isGivenWay,
  isLockTimeout,
  isLostConnection,
  isStatementTimeout,
  isUnreadableValue,
} from '../db/errors'

/** An expected refusal. `code` is for programs, `detail` a sentence for people: what happened, what was kept, what to do. */
export class Problem extends Error {
  constructor(
    readonly status: 400 | 401 | 403 | 404 | 408 | 409 | 410 | 413 | 415 | 421 | 422 | 429 | 502 | 503 | 507,
    readonly code: string,
    readonly detail: string,
    options?: ErrorOptions & { readonly retryAfter?: number },
  ) {
    super(code, options)
    this.retryAfter = options?.retryAfter ?? null
  }

  /** Seconds after which the same call may go through. */
  readonly retryAfter: number | null
}

export const notFound = (what: string): Problem => new Problem(404, 'not-found', `There is no such ${what}.`)

/** The one place where errors become answers (RFC 9457). Nothing of the cause leaves the server. */
export function renderProblem(error: unknown, c: Context): Response {
  const problem = asProblem(error)
  if (LOGGED.has(problem.code)) logError('http', error)
  return c.body(
    JSON.stringify({
      type: `urn:upper-field:${problem.code}`,
      title: problem.code,
      status: problem.status,
      code: problem.code,
      detail: problem.detail,
    }),
    problem.status,
    {
      'content-type': 'application/problem+json',
      ...(problem.retryAfter === null ? {} : { 'retry-after': String(problem.retryAfter) }),
    },
  )
}

/** What whoever runs the server should hear of. */
const LOGGED = new Set(['unexpected', 'took-too-long', 'disk-full'])

function asProblem(error: unknown): Problem {
  if (error instanceof Problem) return error
  const cause = { cause: error }
  if (error instanceof HTTPException && error.status === 403)
    return new Problem(403, 'other-site', 'This call came from another site, so it was not carried out.')
  if (isLockTimeout(error) || isGivenWay(error))
    return new Problem(409, 'busy', 'Somebody else is changing the same thing. Nothing was changed; try again.', cause)
  if (isStatementTimeout(error))
    return new Problem(503, 'took-too-long', 'This took longer than is allowed and was given up. Ask for less.', cause)
  if (isLostConnection(error))
    return new Problem(503, 'database-away', 'The database cannot be reached now. Nothing was half done; try again.', {
      ...cause,
      retryAfter: 1,
    })
  if (isDiskFull(error))
    return new Problem(
      507,
      'disk-full',
      'The disk of the database is full. Nothing was changed; make room first.',
      cause,
    )
  if (isUnreadableValue(error))
    return new Problem(422, 'not-valid', 'A value of this call cannot be read. Nothing was changed.', cause)
  return new Problem(502, 'unexpected', 'Something failed on our side. Nothing was half done; try again.', cause)
}

/** Logs where an error came from without its message: messages of the database quote personal data. */
export function logError(where: string, error: unknown): void {
  const name = error instanceof Error ? error.name : typeof error
  const code =
    (error as { code?: string } | null)?.code ?? (error as { cause?: { code?: string } } | null)?.cause?.code ?? ''
  const stack = error instanceof Error ? (error.stack ?? '').split('\n').filter((line) => /^\s+at /.test(line)) : []
  console.error(`${where}: ${name} ${code}\n${stack.slice(0, 8).join('\n')}`)
}

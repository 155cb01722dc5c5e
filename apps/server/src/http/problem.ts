import type { Context } from 'hono'
import { HTTPException } from 'hono/http-exception'

/** An expected refusal. `code` is for programs, `detail` a sentence for people: what happened, what was kept, what to do. */
export class Problem extends Error {
  constructor(
    readonly status: 400 | 401 | 403 | 404 | 408 | 409 | 410 | 413 | 415 | 422 | 429 | 502,
    readonly code: string,
    readonly detail: string,
    options?: ErrorOptions,
  ) {
    super(code, options)
  }
}

export const notFound = (what: string): Problem => new Problem(404, 'not-found', `There is no such ${what}.`)

/** The one place where errors become answers (RFC 9457). Nothing of the cause leaves the server. */
export function renderProblem(error: unknown, c: Context): Response {
  const problem =
    error instanceof Problem
      ? error
      : error instanceof HTTPException && error.status === 403
        ? new Problem(403, 'other-site', 'This call came from another site, so it was not carried out.')
        : new Problem(502, 'unexpected', 'Something failed on our side. Nothing was half done; try again.', {
            cause: error,
          })
  if (problem.code === 'unexpected') logError('http', error)
  return c.body(
    JSON.stringify({
      type: `urn:upper-field:${problem.code}`,
      title: problem.code,
      status: problem.status,
      code: problem.code,
      detail: problem.detail,
    }),
    problem.status,
    { 'content-type': 'application/problem+json' },
  )
}

/** Logs where an error came from without its message: messages of the database quote personal data. */
export function logError(where: string, error: unknown): void {
  const name = error instanceof Error ? error.name : typeof error
  const code =
    (error as { code?: string } | null)?.code ?? (error as { cause?: { code?: string } } | null)?.cause?.code ?? ''
  const stack = error instanceof Error ? (error.stack ?? '').split('\n').filter((line) => /^\s+at /.test(line)) : []
  console.error(`${where}: ${name} ${code}\n${stack.slice(0, 8).join('\n')}`)
}

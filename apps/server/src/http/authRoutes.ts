import type { Hono } from 'hono'
import { AUTH_CALLS, CLIENT_HEADER } from '../people/auth'
import { announceEnded } from '../people/sessionEvents'
import type { CallServices } from '../services'
import { readBody } from './body'
import { clientOf } from './client'

/** E-mail and password are short. */
const MOST_BYTES = 10_000

/** Signing in and out, as the library answers it, with the bounds of all other calls. */
export function authRoutes(app: Hono, services: CallServices): void {
  const { people, config, db } = services
  app.on(['GET', 'POST'], [...AUTH_CALLS], async (c) => {
    const body =
      c.req.method === 'POST' ? await readBody(c, { bytes: MOST_BYTES, seconds: config.limits.bodySeconds }) : ''
    const headers = new Headers(c.req.raw.headers)
    headers.set(CLIENT_HEADER, clientOf(c, config))
    const isSigningOut = c.req.path.endsWith('/sign-out')
    const leaving = isSigningOut ? await people.whoIs(headers) : null
    const { method, url } = c.req.raw
    const answer = await people.handler(new Request(url, { method, headers, ...(body === '' ? {} : { body }) }))
    if (leaving && answer.ok) await announceEnded(db, leaving.sessionId)
    return answer
  })
}

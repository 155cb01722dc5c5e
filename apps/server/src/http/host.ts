import type { Context, MiddlewareHandler } from 'hono'
import type { Config } from '../config'
import { Problem } from './problem'

/** Names under which this very machine is reached. */
const LOOPBACK = ['127.0.0.1', 'localhost', '[::1]']

/**
 * Refuses calls under a name that is not ours: a page elsewhere can have its own name lead to this machine, and would
 * then be of one origin with it.
 */
export function onlyOurHost({ publicUrl, host }: Pick<Config, 'publicUrl' | 'host'>): MiddlewareHandler {
  const ours = publicUrl === null ? null : new URL(publicUrl).host.toLowerCase()
  return async (c, next) => {
    const named = (c.req.header('host') ?? '').toLowerCase()
    const port = localPortOf(c)
    const isOurs = named === ours || [...LOOPBACK, host].some((name) => named === `${name}:${port}`)
    if (!isOurs)
      throw new Problem(421, 'other-host', 'This application is not reached under that name. Open its own address.')
    await next()
  }
}

const localPortOf = (c: Context): number | undefined =>
  (c.env as { incoming?: { socket?: { localPort?: number } } }).incoming?.socket?.localPort

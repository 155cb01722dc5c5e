import { getConnInfo } from '@hono/node-server/conninfo'
import type { Context } from 'hono'
import type { Config } from '../config'

/**
 * The address a call came from. Behind a proxy it is what the proxy says in the header that the settings name, the
 * last of several: those before it are the caller's own words. Without that setting no header is believed.
 */
export function clientOf(c: Context, { trustedProxyHeader }: Pick<Config, 'trustedProxyHeader'>): string {
  const told = trustedProxyHeader === null ? undefined : c.req.header(trustedProxyHeader)
  const last = told?.split(',').at(-1)?.trim()
  return last || (getConnInfo(c).remote.address ?? 'unknown')
}

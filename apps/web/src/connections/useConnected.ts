import type { Connection } from '@upper-field/contract'
import { useReadConnectionsQuery, useReadSetupQuery } from '../api'

/** What is connected to this installation; null until it is known. An empty start has nothing. */
export function useConnected(): { readonly register: boolean; readonly providers: boolean } | null {
  const { data } = useReadConnectionsQuery({})
  return data ? { register: has(data, 'register'), providers: has(data, 'provider') } : null
}

const has = (connections: readonly Connection[], role: Connection['role']): boolean =>
  connections.some((one) => one.role === role)

/** True where an ad network is there to prepare files for: the made-up one of the demo. */
export function useHasNetwork(): boolean {
  const { data } = useReadSetupQuery({})
  return (data?.demo ?? null) !== null
}

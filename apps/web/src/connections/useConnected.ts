import type { Connection } from '@upper-field/contract'
import { useReadConnectionsQuery, useReadDestinationsQuery } from '../api'

/** Names of services by their ids; an id stands for itself until they are known. */
export function useServiceNames(): (id: string) => string {
  const { data } = useReadConnectionsQuery({})
  return (id) => data?.find(({ provider }) => provider === id)?.name ?? id
}

/** Services that find people: what is paid for already comes first, then the cheapest. Null until they are known. */
export function useProviders(): readonly Connection[] | null {
  const { data } = useReadConnectionsQuery({})
  return data ? inUsualOrder(data) : null
}

export const inUsualOrder = (connections: readonly Connection[]): readonly Connection[] =>
  connections
    .filter(({ role, hasKey }) => role === 'provider' && hasKey)
    .sort((a, b) => Number(b.isPaidFor) - Number(a.isPaidFor) || a.price - b.price)

/** What is connected to this installation; null until it is known. An empty start has nothing. */
export function useConnected(): {
  readonly register: boolean
  readonly verifier: boolean
  readonly doNotCall: boolean
  readonly providers: boolean
} | null {
  const { data } = useReadConnectionsQuery({})
  return data
    ? {
        register: has(data, 'register'),
        verifier: has(data, 'verifier'),
        doNotCall: has(data, 'do-not-call'),
        providers: has(data, 'provider'),
      }
    : null
}

const has = (connections: readonly Connection[], role: Connection['role']): boolean =>
  connections.some((one) => one.role === role)

/** Names of destinations by their ids; an id stands for itself until they are known. */
export function useDestinationNames(): (id: string) => string {
  const { data } = useReadDestinationsQuery({})
  return (id) => data?.find((one) => one.id === id)?.name ?? id
}

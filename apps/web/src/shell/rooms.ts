import { useReadMeQuery } from '../api'

/** Where in the application something stands, and its name. */
export type Room = readonly [to: string, name: string]

/** What stands beside the lists, in the header. */
export const ROOMS: readonly Room[] = [
  ['/lists', 'Lists'],
  ['/providers', 'Providers'],
  ['/destinations', 'Destinations'],
  ['/suppression', 'Suppression'],
  ['/spend', 'Spend'],
]

/** What stands in the menu of whoever is signed in: none before that is known. */
export function useOwnRooms(): readonly Room[] {
  const { data: me } = useReadMeQuery({})
  if (!me) return []
  const people: Room = ['/people', me.role === 'owner' ? 'People and sessions' : 'Your account']
  return me.role === 'viewer' ? [people] : [people, ['/programs', 'Other programs']]
}

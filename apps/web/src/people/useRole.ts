import { useReadMeQuery } from '../api'

/** Whether whoever is signed in may change anything; viewers may not, and nobody before it is known who they are. */
export function useMayChange(): boolean {
  const { data: me } = useReadMeQuery({})
  return me !== undefined && me.role !== 'viewer'
}

/** Whether whoever is signed in owns the installation: money, services and people are theirs to set. */
export function useIsOwner(): boolean {
  const { data: me } = useReadMeQuery({})
  return me?.role === 'owner'
}

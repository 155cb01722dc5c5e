import type { Job } from '@upper-field/contract'
import { isUnderWay } from '@upper-field/contract'
import { useEffect } from 'react'
import { api } from '../api'
import { useAppDispatch } from '../store'

/** Follows all jobs by server-sent events: progress goes into the cache, an end makes the views read anew. */
export function useJobEvents(): void {
  const dispatch = useAppDispatch()
  useEffect(() => {
    const source = new EventSource('/api/v1/events')
    let wasLost = false
    source.addEventListener('job', (event) => {
      const job = JSON.parse((event as MessageEvent<string>).data) as Job
      dispatch(
        api.util.updateQueryData('readJobs', { params: { listId: job.listId } }, (jobs) => {
          const at = jobs.findIndex(({ id }) => id === job.id)
          if (at === -1) jobs.unshift(job)
          else jobs[at] = job
        }),
      )
      if (job.kind === 'bring-in' || !isUnderWay(job)) dispatch(api.util.invalidateTags(['Batches']))
      if (job.kind === 'directory') dispatch(api.util.invalidateTags(['Directory']))
      if (job.kind === 'harvest') dispatch(api.util.invalidateTags(['Harvests']))
      if (!isUnderWay(job))
        dispatch(api.util.invalidateTags(['List', 'Lists', 'Fills', 'Editions', 'Audiences', 'Spend', 'Today']))
      else if (job.kind === 'fill') dispatch(api.util.invalidateTags(['Fills']))
    })
    source.addEventListener('error', () => {
      wasLost = true
    })
    // What happened while the connection was gone was not told.
    source.addEventListener('ready', () => {
      if (wasLost)
        dispatch(api.util.invalidateTags(['Jobs', 'List', 'Lists', 'Batches', 'Fills', 'Editions', 'Audiences']))
      wasLost = false
    })
    return () => source.close()
  }, [dispatch])
}

import { type FillEstimate, isUnderWay, type Job, type List } from '@upper-field/contract'
import { useOutletContext } from 'react-router'
import { useEstimateFillQuery, useReadJobsQuery, useReadMeQuery, useStartFillMutation } from '../api'
import { useListView } from '../shell/useListView'
import { optionsOf, type PlanDraft } from './plan'

/** What a fill by a plan would be, and the way to start it: the same for a run, a try and a sample. */
export interface Filling {
  readonly estimate: FillEstimate | undefined
  readonly error: unknown
  /** The latest fill of this list. */
  readonly job: Job | undefined
  readonly isBusy: boolean
  /** The person may start it. */
  readonly mayStart: boolean
  readonly startError: unknown
  readonly isStarting: boolean
  start(how: StartHow): Promise<boolean>
}

export interface StartHow {
  readonly budget: number
  readonly asking?: 'until-found' | 'everybody'
  readonly sample?: number | null
}

export function useFilling(plan: PlanDraft): Filling {
  const { listId, text: filter } = useListView()
  const list = useOutletContext<List>()
  const { data: me } = useReadMeQuery({})
  const { checksLines } = plan
  const notAgainDays = Number(plan.notAgainDays) || 0
  const { data: estimate, error } = useEstimateFillQuery({
    params: { listId },
    query: {
      filter,
      order: plan.order.join(','),
      checksLines: checksLines ? 'yes' : 'no',
      notAgainDays,
      options: JSON.stringify(optionsOf(plan)),
    },
  })
  const { data: jobs = [] } = useReadJobsQuery({ params: { listId } })
  const [start, starting] = useStartFillMutation()
  const job = jobs.find(({ kind }) => kind === 'fill')
  return {
    estimate,
    error,
    job,
    isBusy: job !== undefined && isUnderWay(job),
    mayStart: me?.role !== 'viewer' && !list.archivedAt,
    startError: starting.error,
    isStarting: starting.isLoading,
    start: async (how) => {
      const body = { order: [...plan.order], checksLines, notAgainDays, filter, options: optionsOf(plan), ...how }
      return !(await start({ params: { listId }, body })).error
    },
  }
}

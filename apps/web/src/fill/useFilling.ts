import { type FillEstimate, isUnderWay, type Job, type List } from '@upper-field/contract'
import { useOutletContext } from 'react-router'
import { useEstimateFillQuery, useReadJobsQuery, useStartFillMutation } from '../api'
import { useMayChange } from '../people/useRole'
import { type MayBeRefused, unlessGone } from '../shell/Answer'
import { useListView } from '../shell/useListView'
import { optionsOf, type PlanDraft } from './plan'

/** What a fill by a plan would be, and the way to start it: the same for a run, a try and a sample. */
export interface Filling {
  /** Of the plan as it was a moment ago, while that as it is now is counted. */
  readonly estimate: FillEstimate | undefined
  /** What is told is not of the plan as it stands: nothing can be started on it. */
  readonly isCounting: boolean
  /** The query for it. */
  readonly asked: MayBeRefused
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
  const mayChange = useMayChange()
  const { checksLines } = plan
  const notAgainDays = Number(plan.notAgainDays) || 0
  const asked = useEstimateFillQuery({
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
    estimate: unlessGone(asked, asked.data),
    isCounting: asked.currentData === undefined,
    asked,
    job,
    isBusy: job !== undefined && isUnderWay(job),
    mayStart: mayChange && !list.archivedAt,
    startError: starting.error,
    isStarting: starting.isLoading,
    start: async (how) => {
      const body = { order: [...plan.order], checksLines, notAgainDays, filter, options: optionsOf(plan), ...how }
      return !(await start({ params: { listId }, body })).error
    },
  }
}

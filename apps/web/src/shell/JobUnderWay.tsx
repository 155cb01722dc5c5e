import { isOver, type Job } from '@upper-field/contract'
import { useReadJobsQuery } from '../api'
import { useIntoView } from '../kit/useIntoView'
import { JobLine } from './JobStrip'
import { useListView } from './useListView'

/** The job of a kind that is not over in the list that is open: it is under way, waits or rests. */
export function useJobUnderWay(kind: Job['kind']): Job | undefined {
  const { listId } = useListView()
  const { data: jobs = [] } = useReadJobsQuery({ params: { listId } })
  return jobs.find((job) => job.kind === kind && !isOver(job))
}

/** How far such a job is, and ways to let it rest or to stop it; nothing where there is none. */
export function JobUnderWay({ kind }: { kind: Job['kind'] }) {
  const job = useJobUnderWay(kind)
  // Whoever has begun it sees it, however far down that was.
  const line = useIntoView<HTMLElement>(job ? Date.parse(job.createdAt) : null)
  if (!job) return null
  return (
    <section ref={line} aria-label="Under way" className="border-y border-line py-3">
      <JobLine job={job} />
    </section>
  )
}

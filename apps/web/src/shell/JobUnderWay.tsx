import { isOver, type Job } from '@upper-field/contract'
import { useReadJobsQuery } from '../api'
import { useIntoView } from '../kit/useIntoView'
import { JobLine } from './JobStrip'
import { useListView } from './useListView'

/** The job of these kinds that is not over in the list that is open: it is under way, waits or rests. */
export function useJobUnderWay(...kinds: readonly Job['kind'][]): Job | undefined {
  const { listId } = useListView()
  const { data: jobs = [] } = useReadJobsQuery({ params: { listId } })
  return jobs.find((job) => kinds.includes(job.kind) && !isOver(job))
}

/** How far such a job is, and ways to let it rest or to stop it; nothing where there is none. */
export function JobUnderWay({ of }: { of: readonly Job['kind'][] }) {
  const job = useJobUnderWay(...of)
  // Whoever has begun it sees it, however far down that was.
  const line = useIntoView<HTMLElement>(job ? Date.parse(job.createdAt) : null)
  if (!job) return null
  return (
    <section ref={line} aria-label="Under way" className="scroll-mb-16 border-y border-line py-3">
      <JobLine job={job} />
    </section>
  )
}

import { isUnderWay, type Job } from '@upper-field/contract'
import { useParams } from 'react-router'
import { useReadJobsQuery } from '../api'
import { TextButton } from '../kit/Button'
import { type RootState, useAppSelector } from '../store'
import { JOB } from '../words/sentences'
import { giveUp } from './waitingActs'

const selectWaiting = (state: RootState) => state.waitingActs

/** Says that an act waits, for whom where that is known, and lets it be given up. */
export function WaitingNotice() {
  const waiting = useAppSelector(selectWaiting)
  const [first] = waiting
  if (!first) return null
  return (
    <div
      role="status"
      className="fixed bottom-4 left-1/2 z-50 flex -translate-x-1/2 items-baseline gap-4 rounded-small border border-edge bg-surface px-4 py-2 shadow-lg"
    >
      <span>
        Waiting to do what you asked. <Reason />
      </span>
      <TextButton onClick={() => giveUp(waiting.map(({ id }) => id))}>Give up</TextButton>
    </div>
  )
}

function Reason() {
  const { listId } = useParams()
  return listId ? <JobAtWork listId={listId} /> : <>It takes longer than usual.</>
}

function JobAtWork({ listId }: { listId: string }) {
  const { data: jobs = [] } = useReadJobsQuery({ params: { listId } })
  return <>{whoIsAtWork(jobs) ?? 'Somebody else is changing this list.'}</>
}

/** Jobs that have a list for themselves while they change it. */
const HOLDS: ReadonlySet<Job['kind']> = new Set(['tidy', 'pair', 'take-back', 'bring-in'])

/** The sentence about the job that has the list now; null where none is known to. */
export function whoIsAtWork(jobs: readonly Job[]): string | null {
  const job = jobs.find((one) => isUnderWay(one) && one.state !== 'queued' && HOLDS.has(one.kind))
  if (!job) return null
  const share = job.total ? `, ${Math.floor((100 * Math.min(job.done, job.total)) / job.total)} %` : ''
  const by = job.startedBy ? `, started by ${job.startedBy}` : ''
  return `This list is at work: ${JOB[job.kind].toLowerCase()}${by}${share}.`
}

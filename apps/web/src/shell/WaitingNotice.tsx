import { useParams } from 'react-router'
import { useReadJobsQuery } from '../api'
import { TextButton } from '../kit/Button'
import { type RootState, useAppSelector } from '../store'
import { giveUp } from './waitingActs'
import { whoIsAtWork } from './whoIsAtWork'

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

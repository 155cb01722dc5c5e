import { isOver, isUnderWay, type Job } from '@upper-field/contract'
import { Popover } from 'radix-ui'
import { usePauseJobMutation, useReadJobsQuery, useResumeJobMutation, useStopJobMutation } from '../api'
import { Button } from '../kit/Button'
import { bytes, count, remaining, time } from '../words/format'
import { isBeyondCounted, JOB_PROBLEM, jobTitle, shareOfJob } from '../words/jobs'
import { Refused } from './Answer'
import { rateOf } from './jobRate'

/** The list's jobs: the one under way in the header, all of them a click away. */
export function JobStrip({ listId }: { listId: string }) {
  const { data: jobs = [] } = useReadJobsQuery({ params: { listId } })
  const busy = jobs.filter(isUnderWay)
  // The search is prepared beside whatever else is under way, and follows from it.
  const first = busy.find(({ kind }) => kind !== 'index') ?? busy[0]
  if (jobs.length === 0) return null
  return (
    <Popover.Root>
      <Popover.Trigger className="whitespace-nowrap rounded-small px-1 text-[13px] text-soft hover:text-ink">
        {first ? `${jobTitle(first)} · ${shareOf(first)}` : 'Jobs'}
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          align="end"
          sideOffset={8}
          aria-label="Jobs of this list"
          className="z-50 max-h-96 w-96 overflow-auto rounded-small border border-edge bg-surface p-3 shadow-lg"
        >
          <ul className="flex flex-col gap-3">
            {toShow(jobs).map((job) => (
              <li key={job.id}>
                <JobLine job={job} />
              </li>
            ))}
          </ul>
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  )
}

/** Jobs that ended and are told of. */
const ENDED = 8

/** What is not over comes first, all of it: nothing else lets a job that rests go on. */
function toShow(jobs: readonly Job[]): readonly Job[] {
  return [...jobs.filter((job) => !isOver(job)), ...jobs.filter(isOver).slice(0, ENDED)]
}

const percentOf = (job: Job): string => `${Math.floor(shareOfJob(job) * 100)} %`

/** How far a job is, in short: what it is at where that is not what it counts, and how far that is where it is told. */
function shareOf(job: Job): string {
  if (job.state === 'queued') return 'waiting'
  const phase = job.state === 'running' ? PHASE[job.phase] : undefined
  if (!phase) return percentOf(job)
  if (job.phaseShare !== null) return `${phase} ${percentOf(job)}`
  return shareOfJob(job) === 1 ? phase : percentOf(job)
}

const UNIT: Readonly<Record<Job['unit'], string>> = {
  lines: 'lines',
  bytes: '',
  numbers: 'numbers',
  addresses: 'addresses',
  'do-not-call': 'numbers',
  pages: 'pages',
  businesses: 'businesses',
  contacts: 'contacts',
}

const amount = (job: Job, n: number): string => (job.unit === 'bytes' ? bytes(n) : count(n))

/** One job: what is done, what is left, how quickly, and a way to stop. */
export function JobLine({ job }: { job: Job }) {
  const [stop, stopping] = useStopJobMutation()
  const [pause, pausing] = usePauseJobMutation()
  const [resume, resuming] = useResumeJobMutation()
  const isBusy = isUnderWay(job)
  return (
    <div className="flex flex-col gap-1">
      <div className="flex flex-wrap items-baseline justify-between gap-x-3">
        <span className="font-semibold">{jobTitle(job)}</span>
        <span className="text-[13px] text-soft">
          {isBusy ? stateOf(job) : `${stateOf(job)} · ${time(job.finishedAt ?? job.createdAt)}`}
        </span>
      </div>
      {isBusy ? (
        <>
          <progress aria-label={jobTitle(job)} max={1} value={shareOfJob(job)} className="bar h-2 w-full" />
          <div className="flex flex-wrap items-center justify-between gap-x-3 gap-y-1 text-[13px]">
            {job.phaseShare !== null ? (
              <span className="num">{percentOf(job)}</span>
            ) : isBeyondCounted(job) ? null : (
              <Counted job={job} />
            )}
            <span className="ml-auto flex gap-1.5">
              <Button disabled={isEnding(job)} onClick={() => void pause({ params: { jobId: job.id } })}>
                Pause
              </Button>
              <Button disabled={job.state === 'stopping'} onClick={() => void stop({ params: { jobId: job.id } })}>
                Stop
              </Button>
            </span>
          </div>
        </>
      ) : null}
      <Refused by={[stopping, pausing, resuming]} />
      {job.problem ? (
        <p className="text-[13px] text-straw-ink">{JOB_PROBLEM[job.problem] ?? JOB_PROBLEM.unexpected}</p>
      ) : null}
      {canGoOn(job) ? (
        <span className="flex gap-1.5">
          <Button
            look={job.state === 'paused' ? 'main' : 'plain'}
            onClick={() => void resume({ params: { jobId: job.id } })}
          >
            {resumeText(job)}
          </Button>
          {job.state === 'paused' && job.kind !== 'bring-in' ? (
            <Button onClick={() => void stop({ params: { jobId: job.id } })}>Stop</Button>
          ) : null}
        </span>
      ) : null}
    </div>
  )
}

/** How much is done of how much, and what that lets expect. */
function Counted({ job }: { job: Job }) {
  const rate = rateOf(job, Date.now())
  return (
    <span>
      <span className="num">{amount(job, job.done)}</span>
      {job.total ? (
        <>
          {' of '}
          <span className="num">{amount(job, job.total)}</span>
        </>
      ) : null}{' '}
      {UNIT[job.unit]}
      {rate ? ` · ${amount(job, Math.round(rate.perSecond))} a second · ${remaining(rate.secondsLeft)} left` : ''}
    </span>
  )
}

const STATE: Record<Job['state'], string> = {
  queued: 'waiting its turn',
  running: 'under way',
  waiting: 'awaiting answers',
  stopping: 'stopping',
  stopped: 'stopped',
  pausing: 'pausing',
  paused: 'paused',
  done: 'done',
  failed: 'failed',
}
const PHASE: Record<string, string> = {
  joining: 'joining duplicates',
  parting: 'parting it from the others',
  counting: 'counting the list',
  unpacking: 'unpacking the file',
  gathering: 'reading contacts',
  comparing: 'comparing contacts',
}
const WAITS_FOR: Record<string, string> = {
  'list-busy': 'waiting until the list is free',
  'waiting-for-answers': 'awaiting what was ordered',
  'waiting-for-tomorrow': 'the money of this day is spent: it goes on tomorrow',
}

function stateOf(job: Job): string {
  if (job.state === 'running') return PHASE[job.phase] ?? STATE.running
  if (job.state === 'stopping' && job.phase === 'waiting-for-answers') return 'stopping, once what was ordered is here'
  return (job.state === 'waiting' ? WAITS_FOR[job.phase] : undefined) ?? STATE[job.state]
}

/** What costs more than was agreed to has to be agreed to anew: to go on would end the same way. */
const canGoOn = ({ state, problem }: Job): boolean =>
  state === 'paused' || state === 'stopped' || (state === 'failed' && problem !== 'costs-more')

function resumeText({ kind, done, problem }: Job): string {
  if (kind === 'bring-in' && done === 0) return 'Bring it in'
  return problem === 'price-changed' ? 'Go on at the new price' : 'Go on'
}

const isEnding = (job: Job): boolean => job.state === 'stopping' || job.state === 'pausing'

import { type HarvestDetail, isUnderWay, type Job } from '@upper-field/contract'
import { usePauseJobMutation, useResumeJobMutation, useStopJobMutation } from '../api'
import { TextButton } from '../kit/Button'
import { Refused } from '../shell/Answer'
import { count } from '../words/format'
import { siteLine } from './harvestText'

const TONE = { plain: 'text-soft', look: 'text-straw-ink', bad: 'text-beet' } as const

/** The sites of a harvest, how far each is read, and how it is held up. */
export function SiteList({
  harvest,
  job,
  chosen,
  mayChange,
  onChoose,
}: {
  harvest: HarvestDetail
  job: Job | undefined
  chosen: string | null
  mayChange: boolean
  onChoose: (site: string) => void
}) {
  const share = harvest.sites === 0 ? 0 : harvest.sitesRead / harvest.sites
  return (
    <>
      <div className="px-4 pb-2 pt-2">
        <div className="flex items-baseline justify-between">
          <h2 className="text-[15px]">Sites</h2>
          <span className="text-[13px] text-soft">
            {count(harvest.sitesRead)} of {count(harvest.sites)} read
          </span>
        </div>
        <progress aria-label="Sites read" max={1} value={share} className="bar mt-1 h-1 w-full" />
        {job && mayChange ? <HoldUp job={job} /> : null}
      </div>
      <ul className="min-h-0 flex-1 overflow-y-auto px-2 pb-3">
        {harvest.ofSites.map((one) => {
          const { text, tone } = siteLine(one)
          return (
            <li key={one.site} className="border-b border-line">
              <button
                type="button"
                aria-pressed={one.site === chosen}
                onClick={() => onChoose(one.site)}
                className={`w-full rounded-small px-2 py-1.5 text-left hover:bg-lichen ${one.site === chosen ? 'bg-lichen' : ''}`}
              >
                <span className="flex justify-between gap-2">
                  <span className="truncate font-semibold" title={one.site}>
                    {one.site}
                  </span>
                  <span className="num">{count(one.numbers)}</span>
                </span>
                <span className={`block truncate text-[13px] ${TONE[tone]}`}>{text}</span>
              </button>
            </li>
          )
        })}
      </ul>
    </>
  )
}

function HoldUp({ job }: { job: Job }) {
  const [pause, pausing] = usePauseJobMutation()
  const [stop, stopping] = useStopJobMutation()
  const [resume, resuming] = useResumeJobMutation()
  const params = { params: { jobId: job.id } }
  if (job.state === 'paused' || job.state === 'stopped' || job.state === 'failed')
    return (
      <>
        <p className="pt-1 text-[13px] text-straw-ink">
          {job.state === 'paused' ? 'Paused' : job.state === 'stopped' ? 'Stopped' : 'Failed'} ·{' '}
          <TextButton onClick={() => resume(params)}>go on</TextButton>
        </p>
        <Refused by={[resuming]} />
      </>
    )
  if (!isUnderWay(job)) return <p className="pt-1 text-[13px] text-soft">Nothing is left to be read.</p>
  return (
    <>
      <p className="pt-1 text-[13px] text-soft">
        {count(job.done)} of {count(job.total ?? 0)} pages ·{' '}
        <TextButton onClick={() => pause(params)}>pause</TextButton> ·{' '}
        <TextButton onClick={() => stop(params)}>stop</TextButton>
      </p>
      <Refused by={[pausing, stopping]} />
    </>
  )
}

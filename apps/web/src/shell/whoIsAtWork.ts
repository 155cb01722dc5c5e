import { isUnderWay, type Job } from '@upper-field/contract'
import { jobTitle, shareOfJob } from '../words/jobs'

/** Jobs that have a list for themselves while they change it. */
const HOLDS: ReadonlySet<Job['kind']> = new Set(['tidy', 'pair', 'take-back', 'bring-back', 'bring-in'])

/** The sentence about the job that has the list now; null where none is known to. */
export function whoIsAtWork(jobs: readonly Job[]): string | null {
  const job = jobs.find((one) => isUnderWay(one) && one.state !== 'queued' && HOLDS.has(one.kind))
  if (!job) return null
  const isTold = job.total !== null || job.phaseShare !== null
  const share = isTold ? `, ${Math.floor(100 * shareOfJob(job))} %` : ''
  const by = job.startedBy ? `, started by ${job.startedBy}` : ''
  return `This list is at work: ${jobTitle(job).toLowerCase()}${by}${share}.`
}

import type { Job } from '@upper-field/contract'

/** Speed of a job since it started, and the seconds it still needs; null until there is enough to tell. */
export function rateOf(
  job: Pick<Job, 'startedAt' | 'done' | 'total' | 'state'>,
  now: number,
): { perSecond: number; secondsLeft: number } | null {
  if (!job.startedAt || job.total === null || job.done === 0 || job.state !== 'running') return null
  const seconds = (now - Date.parse(job.startedAt)) / 1000
  if (seconds < 1) return null
  const perSecond = job.done / seconds
  return { perSecond, secondsLeft: Math.max(0, Math.ceil((job.total - job.done) / perSecond)) }
}

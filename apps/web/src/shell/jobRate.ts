import type { Job } from '@upper-field/contract'

/**
 * Speed of a job since it started, and the seconds it still needs; null until there is enough to tell, and where all that
 * is counted is done, though something follows.
 */
export function rateOf(
  job: Pick<Job, 'startedAt' | 'done' | 'total' | 'state'> & Partial<Pick<Job, 'before'>>,
  now: number,
): { perSecond: number; secondsLeft: number } | null {
  const done = job.done - (job.before ?? 0)
  if (!job.startedAt || job.total === null || done <= 0 || job.done >= job.total || job.state !== 'running') return null
  const seconds = (now - Date.parse(job.startedAt)) / 1000
  if (seconds < 1) return null
  const perSecond = done / seconds
  return { perSecond, secondsLeft: Math.max(0, Math.ceil((job.total - job.done) / perSecond)) }
}

import { z } from 'zod'
import { Id, Instant } from './words'

export const JOB_KINDS = [
  'bring-in',
  'harvest',
  'directory',
  'take-back',
  'bring-back',
  'tidy',
  'pair',
  'index',
  'mark',
  'facts',
  'check',
  'fill',
  'edition',
  'prepare',
  'deliver',
] as const
export const JobKind = z.enum(JOB_KINDS)
export type JobKind = z.infer<typeof JobKind>
export const JOB_STATES = [
  'queued',
  'running',
  'waiting',
  'stopping',
  'stopped',
  'pausing',
  'paused',
  'done',
  'failed',
] as const
export const JobState = z.enum(JOB_STATES)

/** Work that takes time. `done` and `total` count in `unit`. */
export const Job = z.object({
  id: Id,
  kind: JobKind,
  listId: Id,
  state: JobState,
  phase: z.string(),
  /** How much of its phase is done, from 0 to 1; null where that is not told apart from the whole. */
  phaseShare: z.number().nullable(),
  done: z.number().int(),
  total: z.number().int().nullable(),
  /** How much was done before it began: a large file is read while it arrives. */
  before: z.number().int(),
  /** What is counted; `do-not-call` are numbers too. */
  unit: z.enum(['bytes', 'numbers', 'addresses', 'do-not-call', 'contacts', 'lines', 'pages', 'businesses']),
  /** Code of what went wrong, or of what ended the work early. */
  problem: z.string().nullable(),
  result: z.record(z.string(), z.union([z.number(), z.string()])),
  /** Name of who asked for it; null where the application did so by itself. */
  startedBy: z.string().nullable(),
  createdAt: Instant,
  startedAt: Instant.nullable(),
  finishedAt: Instant.nullable(),
})
export type Job = z.infer<typeof Job>

/** States in which a job has ended. One that rests is not over: it can go on, and may still spend. */
export const ENDED_STATES = ['done', 'stopped', 'failed'] as const satisfies readonly Job['state'][]

export const isOver = ({ state }: { readonly state: string }): boolean => ENDED_STATES.some((one) => one === state)

export const isUnderWay = (job: Pick<Job, 'state'>): boolean => !isOver(job) && job.state !== 'paused'

import { z } from 'zod'
import { Id, Instant, Micros } from './words'

export const AUTOMATION_STARTS = ['batch-ready', 'contact-added', 'day'] as const
/** What it begins with: a batch that is ready, a contact that another program has added, a day. */
export const AutomationStart = z.enum(AUTOMATION_STARTS)
export type AutomationStart = z.infer<typeof AutomationStart>

export const AUTOMATION_WORK = ['tidy', 'pair', 'check', 'fill', 'split', 'send'] as const
/** One stage's work, and the most it may spend at a time. */
export const AutomationStep = z.object({
  work: z.enum(AUTOMATION_WORK),
  /** 0 where the work costs nothing. */
  amount: Micros.default(0),
  /** Which audience is sent. */
  audienceId: Id.nullable().default(null),
})
export type AutomationStep = z.infer<typeof AutomationStep>

export const NewAutomation = z
  .object({
    start: AutomationStart,
    /** Hour of a day, UTC, where it begins with a day. */
    hour: z.number().int().min(0).max(23).default(6),
    steps: z.array(AutomationStep).min(1, 'An automation needs something to do.').max(8),
  })
  .refine(
    ({ steps }) => steps.every(({ work, amount }) => (work !== 'check' && work !== 'fill') || amount > 0),
    'Checking and filling cost money: say how much they may spend at a time.',
  )
  .refine(
    ({ steps }) => steps.every(({ work, audienceId }) => work !== 'send' || audienceId !== null),
    'Say which audience is sent.',
  )
export const Automation = z.object({
  id: Id,
  start: AutomationStart,
  hour: z.number().int(),
  steps: z.array(AutomationStep),
  isOn: z.boolean(),
  madeBy: z.string(),
  madeAt: Instant,
})
export type Automation = z.infer<typeof Automation>

export const STEP_OUTCOMES = ['done', 'nothing-to-do', 'over-amount', 'refused', 'failed'] as const
export const AutomationRun = z.object({
  id: Id,
  automationId: Id,
  start: AutomationStart,
  /** The batch it was begun for. */
  batchId: Id.nullable(),
  state: z.enum(['running', 'done', 'stopped']),
  /** What is under way; null where nothing is. */
  working: z.enum(AUTOMATION_WORK).nullable(),
  done: z.array(
    z.object({
      work: z.enum(AUTOMATION_WORK),
      outcome: z.enum(STEP_OUTCOMES),
      /** Why it was not done, as a sentence. */
      reason: z.string().nullable(),
      spent: Micros,
    }),
  ),
  startedAt: Instant,
  finishedAt: Instant.nullable(),
})
export type AutomationRun = z.infer<typeof AutomationRun>

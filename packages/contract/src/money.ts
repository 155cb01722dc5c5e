import { z } from 'zod'
import { Id, Instant, Micros } from './words'

export const CheckEstimate = z.object({
  /** Distinct numbers of the chosen contacts. */
  numbers: z.number().int(),
  /** Answered lately: cost nothing again. */
  fresh: z.number().int(),
  toAsk: z.number().int(),
  most: Micros,
})
export type CheckEstimate = z.infer<typeof CheckEstimate>
export const NewCheck = z.object({
  filter: z.string().max(2000),
  /** What the operator agreed to at most: the job is refused where it would cost more. */
  agreed: Micros,
})

export const FillPlan = z.object({
  order: z.array(z.string()).min(1).max(10),
  checksLines: z.boolean(),
  budget: Micros,
})
export type FillPlan = z.infer<typeof FillPlan>
export const FillEstimate = z.object({
  /** Contacts without a mobile. */
  wanting: z.number().int(),
  providers: z.array(z.object({ provider: z.string(), askable: z.number().int() })),
  most: Micros,
})
export type FillEstimate = z.infer<typeof FillEstimate>
export const FillResult = z.object({
  jobId: Id,
  plan: FillPlan,
  spent: Micros,
  contacts: z.number().int(),
  found: z.number().int(),
  startedAt: Instant,
  providers: z.array(
    z.object({
      provider: z.string(),
      asked: z.number().int(),
      candidates: z.number().int(),
      accepted: z.number().int(),
      setAside: z.number().int(),
      waiting: z.number().int(),
      failed: z.number().int(),
      cost: Micros,
    }),
  ),
})
export type FillResult = z.infer<typeof FillResult>

export const Connection = z.object({
  provider: z.string(),
  name: z.string(),
  role: z.enum(['provider', 'register']),
  baseUrl: z.string(),
  hasKey: z.boolean(),
  pricePer: z.string(),
  price: Micros,
  changedAt: Instant.nullable(),
})
export type Connection = z.infer<typeof Connection>
export const ConnectionChange = z.object({ baseUrl: z.url().max(500), key: z.string().min(4).max(500).optional() })

export const SpendLine = z.object({
  provider: z.string(),
  listId: Id,
  list: z.string(),
  reason: z.string(),
  charges: z.number().int(),
  amount: Micros,
})
export type SpendLine = z.infer<typeof SpendLine>

import { USES } from '@upper-field/core/split'
import { z } from 'zod'
import { Id } from './words'

export const LaneRule = z.object({
  lane: z.string().max(40),
  name: z.string().trim().max(40),
  use: z.enum(USES),
  filter: z.string().max(2000),
})

/** The rules of a list's lanes: its own, or those that are proposed for it. */
export const LaneRules = z.object({ isOwn: z.boolean(), rules: z.array(LaneRule) })
export type LaneRules = z.infer<typeof LaneRules>

/** A filter saved by a name, with how many it means now. */
export const Segment = z.object({
  id: Id,
  name: z.string(),
  filter: z.string(),
  madeBy: z.string(),
  contacts: z.number().int(),
})
export type Segment = z.infer<typeof Segment>

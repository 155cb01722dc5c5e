import { TODO_KINDS } from '@upper-field/core/today'
import { z } from 'zod'
import { ContactLine } from './contacts'
import { Id, Instant } from './words'

/** One thing that wants doing today. */
export const Todo = z.object({
  kind: z.enum(TODO_KINDS),
  pressure: z.enum(['now', 'soon', 'quiet']),
  listId: Id.nullable(),
  listName: z.string(),
  audienceId: Id.nullable(),
  name: z.string(),
  destination: z.string(),
  n: z.number().int(),
  more: z.number().int(),
  at: Instant.nullable(),
  says: z.string(),
})
export type Todo = z.infer<typeof Todo>

/** What a search over all lists found in one of them. */
export const FoundInList = z.object({
  listId: Id,
  listName: z.string(),
  contacts: z.array(ContactLine),
  total: z.number().int(),
  isCapped: z.boolean(),
})
export type FoundInList = z.infer<typeof FoundInList>

/** The address of the reminders as a calendar: whoever has it can read them. */
export const CalendarFeed = z.object({ address: z.string() })

import { z } from 'zod'
import { Instant, Role } from './words'

export const Me = z.object({ id: z.string(), name: z.string(), email: z.string(), role: Role })
export type Me = z.infer<typeof Me>

export const Setup = z.object({
  /** True until the first account, the owner's, is made. */
  needsOwner: z.boolean(),
  /** The made-up operator that the demo offers to enter as. */
  demo: z.object({ name: z.string() }).nullable(),
})
export type Setup = z.infer<typeof Setup>

const Password = z.string().min(10, 'At least 10 characters.').max(128)
export const NewOwner = z.object({
  code: z.string().min(1, 'The code stands in the terminal where the application was started.'),
  name: z.string().trim().min(1).max(120),
  email: z.email(),
  password: Password,
})
export const NewPerson = z.object({
  name: z.string().trim().min(1).max(120),
  email: z.email(),
  password: Password,
  role: Role,
})

/** Somebody who may enter, as owners see it. */
export const PersonLine = Me.extend({
  addedAt: Instant,
  /** When a session of theirs was last renewed; null where none is open. */
  lastSeenAt: Instant.nullable(),
  sessions: z.number().int(),
})
export type PersonLine = z.infer<typeof PersonLine>
export const PersonChange = z.object({ role: Role })
export const PasswordChange = z.object({ old: z.string().min(1).max(128), new: Password })

/** A browser somebody is signed in with. */
export const SessionLine = z.object({
  id: z.string(),
  personId: z.string(),
  person: z.string(),
  startedAt: Instant,
  lastSeenAt: Instant,
  address: z.string().nullable(),
  agent: z.string().nullable(),
  /** True for the one this call was made in. */
  isThis: z.boolean(),
})
export type SessionLine = z.infer<typeof SessionLine>

/** RFC 9457. `code` names the case for programs; `detail` is the sentence for people. */
export const ProblemDetails = z.object({
  type: z.string(),
  title: z.string(),
  status: z.number(),
  code: z.string(),
  detail: z.string(),
})
export type ProblemDetails = z.infer<typeof ProblemDetails>

import { z } from 'zod'
import { Role } from './words'

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

/** RFC 9457. `code` names the case for programs; `detail` is the sentence for people. */
export const ProblemDetails = z.object({
  type: z.string(),
  title: z.string(),
  status: z.number(),
  code: z.string(),
  detail: z.string(),
})
export type ProblemDetails = z.infer<typeof ProblemDetails>

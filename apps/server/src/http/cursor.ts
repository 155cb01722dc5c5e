import { z } from 'zod'
import { Problem } from './problem'

/** What the parts of cursors are made of. */
export const CURSOR = {
  number: z
    .string()
    .regex(/^-?\d{1,15}(?:\.\d{1,15})?(?:e[+-]?\d{1,3})?$/)
    .transform(Number),
  id: z
    .string()
    .regex(/^\d{1,15}$/)
    .transform(Number),
  instant: z.string().regex(/^\d{4}-\d\d-\d\d[ T]\d\d:\d\d:\d\d(?:\.\d{1,6})?(?:Z|[+-]\d\d(?::?\d\d)?)$/),
  uuid: z.uuid(),
  e164: z.string().regex(/^\+\d{1,20}$/),
}

/**
 * The parts of a cursor, which stands for the last line of the page before: each part is read by its own shape.
 * Null for the first page. Throws a problem for what no page of ours has given out.
 */
export function readCursor<T extends z.ZodType>(
  cursor: string | undefined,
  shapes: readonly [T, ...T[]],
): z.output<T>[] | null {
  if (cursor === undefined) return null
  const parts = cursor.split('/')
  const read = shapes.map((shape, i) => shape.safeParse(parts[i]))
  if (parts.length !== shapes.length || !read.every((one) => one.success))
    throw new Problem(422, 'bad-cursor', 'This cursor was not given out by a page before.')
  return read.map((one) => one.data as z.output<T>)
}

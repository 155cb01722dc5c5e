import { z } from 'zod'
import type { KeyScope } from '../machine'
import { Id, type Role } from '../words'

export interface Endpoint {
  readonly method: 'get' | 'post' | 'put' | 'patch' | 'delete'
  /** OpenAPI path template below `/api/v1`. */
  readonly path: string
  readonly summary: string
  readonly params: z.ZodObject
  readonly query: z.ZodObject
  /** `file` for a raw body. */
  readonly body: z.ZodType | 'file' | null
  readonly response: z.ZodType | 'file' | 'events'
  /** Least role that may call it; null for everybody. */
  readonly role: Role | null
  /** What a program's key must allow; null for calls of people alone. */
  readonly scope: KeyScope | null
  /** True where an Idempotency-Key header is kept: calls that spend or create. */
  readonly isIdempotent: boolean
  /** True where the body holds rows or lines: it may be larger than others. */
  readonly sendsRows: boolean
}

export function endpoint<
  P extends z.ZodObject = z.ZodObject<Record<never, never>>,
  Q extends z.ZodObject = z.ZodObject<Record<never, never>>,
  B extends z.ZodType | 'file' | null = null,
  R extends z.ZodType | 'file' | 'events' = 'file',
>(
  method: Endpoint['method'],
  path: string,
  summary: string,
  shape: {
    params?: P
    query?: Q
    body?: B
    response: R
    role?: Role | null
    scope?: KeyScope
    isIdempotent?: boolean
    sendsRows?: boolean
  },
) {
  return {
    method,
    path,
    summary,
    params: (shape.params ?? z.object({})) as P,
    query: (shape.query ?? z.object({})) as Q,
    body: (shape.body ?? null) as B,
    response: shape.response,
    role: shape.role === undefined ? ('viewer' as Role) : shape.role,
    scope: shape.scope ?? (null as KeyScope | null),
    isIdempotent: shape.isIdempotent ?? false,
    sendsRows: shape.sendsRows ?? false,
  }
}

/** The number of a line in the database, as it stands in an address. */
export const RowId = z.coerce.number().int().positive().max(Number.MAX_SAFE_INTEGER)
export const OfList = z.object({ listId: Id })

/** How many of what only grows are told, the latest first. */
export const Latest = (first: number) => z.object({ limit: z.coerce.number().int().min(1).max(1000).default(first) })
export const OfBatch = z.object({ batchId: Id })
export const OfJob = z.object({ jobId: Id })
export const ByFilter = z.object({ filter: z.string().max(2000).default('') })
export const nothing = z.object({})

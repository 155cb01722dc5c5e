import type { BaseQueryFn, EndpointBuilder } from '@reduxjs/toolkit/query/react'
import {
  addressOf,
  type CallInput,
  type EndpointName,
  endpoints,
  type ProblemDetails,
  type ResponseOf,
} from '@upper-field/contract'
import { watched } from './shell/waitingActs'

interface Sent {
  readonly name: EndpointName
  readonly input: object
  readonly key?: string
}

/** What went wrong, in words a person can act on. */
export interface CallProblem {
  readonly status: number
  readonly code: string
  readonly detail: string
}

/** Acts are told where they have to wait, and can be given up; what is only read is simply read. */
export const callServer: BaseQueryFn<Sent, unknown, CallProblem> = (sent, { type, dispatch, signal }) =>
  type === 'mutation' ? watched(sent.name, dispatch, (giveUp) => answerTo(sent, giveUp)) : answerTo(sent, signal)

async function answerTo(
  { name, input, key }: Sent,
  signal: AbortSignal,
): Promise<{ data: unknown } | { error: CallProblem }> {
  const { body } = input as { body?: unknown }
  try {
    const response = await fetch(addressOf(name, input), {
      method: endpoints[name].method.toUpperCase(),
      signal,
      headers: {
        ...(body === undefined ? {} : { 'content-type': 'application/json' }),
        ...(key ? { 'idempotency-key': key } : {}),
      },
      ...(body === undefined ? {} : { body: JSON.stringify(body) }),
    })
    if (response.ok) return { data: await response.json() }
    const problem = (await response.json().catch(() => null)) as ProblemDetails | null
    return {
      error: {
        status: response.status,
        code: problem?.code ?? 'unknown',
        detail: problem?.detail ?? 'The application gave no reason.',
      },
    }
  } catch {
    if (signal.aborted)
      return {
        error: { status: 0, code: 'given-up', detail: 'You gave up waiting. What had not begun by then is not done.' },
      }
    return {
      error: {
        status: 0,
        code: 'no-connection',
        detail: 'The application cannot be reached. Nothing was changed; try again.',
      },
    }
  }
}

export const TAGS = [
  'Routines',
  'Me',
  'People',
  'Sessions',
  'Lists',
  'List',
  'Batches',
  'Jobs',
  'Fills',
  'Editions',
  'Audiences',
  'Harvests',
  'Directory',
  'Programs',
  'Automations',
  'Formats',
  'Keys',
  'Today',
  'Connections',
  'Destinations',
  'Calls',
  'Suppression',
  'Spend',
  'Check',
] as const
export type Tag = (typeof TAGS)[number]

type Builder = EndpointBuilder<typeof callServer, Tag, 'api'>

/** Calls of the contract as queries and mutations, by their names: what each provides, or makes out of date. */
export function callsOf(build: Builder) {
  const read = <N extends EndpointName>(name: N, ...tags: Tag[]) =>
    build.query<ResponseOf<N>, CallInput<N>>({ query: (input) => ({ name, input }), providesTags: tags })
  const change = <N extends EndpointName>(name: N, ...tags: Tag[]) =>
    build.mutation<ResponseOf<N>, CallInput<N>>({
      query: (input) => ({ name, input, ...(endpoints[name].isIdempotent ? { key: crypto.randomUUID() } : {}) }),
      invalidatesTags: tags,
    })
  return { read, change }
}

import type { ReactNode } from 'react'
import { isNotFound, problemText } from '../api'
import { TextButton } from '../kit/Button'
import { Loading, Notice } from '../kit/Notice'

/** What may have been refused: an act, or a query, which can be asked again. */
export interface MayBeRefused {
  readonly error?: unknown
  readonly refetch?: (() => unknown) | undefined
}

export interface Asked<T> extends MayBeRefused {
  readonly data?: T | undefined
}

interface AnswerProps<T> {
  /** A query, or several that have to be there together. */
  readonly of: Asked<T>
  /** What is being read, as it stands behind "Reading". */
  readonly what: string
  /** Said where the answer is an empty list. */
  readonly none?: ReactNode
  readonly children: (data: T) => ReactNode
}

/**
 * What was asked for, once it is there. Until then: that it is being read, or why it cannot be; that there is nothing is
 * said only where that is known. What was there before stays in sight when it cannot be read anew, unless it is gone.
 */
export function Answer<T>({ of, what, none, children }: AnswerProps<T>) {
  const data = unlessGone(of, of.data)
  const isNone = none !== undefined && Array.isArray(data) && data.length === 0
  return (
    <>
      <ReadState of={of} what={what} />
      {data === undefined ? null : isNone ? none : children(data)}
    </>
  )
}

/** What was read, unless what it is of is known to be gone. */
export const unlessGone = <T,>({ error }: MayBeRefused, read: T | undefined): T | undefined =>
  isNotFound(error) ? undefined : read

/**
 * What a query has read last of what it asks for now. It stays when it cannot be read anew, so that a moment without an
 * answer takes no draft away; what is known to be gone does not.
 */
export const lastRead = <T,>(asked: MayBeRefused & { readonly currentData?: T | undefined }): T | undefined =>
  unlessGone(asked, asked.currentData)

/** Before what is shown of a query: that it is being read, or why it cannot be, at all or anew. */
export function ReadState<T>({ of, what }: { of: Asked<T>; what: string }) {
  return unlessGone(of, of.data) === undefined ? <Unanswered of={[of]} what={what} /> : <Refused by={[of]} />
}

/** In the place of what is not there yet: that it is being read, or why it cannot be. */
export function Unanswered({ of, what }: { of: readonly MayBeRefused[]; what: string }) {
  return of.some(({ error }) => error) ? <Refused by={of} /> : <Loading what={what} />
}

/** Why an act was refused, or something could not be read; nothing where neither is so. */
export function Refused({ by }: { by: readonly MayBeRefused[] }) {
  const refused = by.find(({ error }) => error)
  if (!refused) return null
  const { error, refetch } = refused
  return (
    <Notice tone="bad">
      {problemText(error)}
      {refetch && !isNotFound(error) ? (
        <>
          {' '}
          <TextButton onClick={() => void refetch()}>Read it again</TextButton>
        </>
      ) : null}
    </Notice>
  )
}

/** Several queries as one: there once all of them are, refused where one is. */
export function together<T extends object>(queries: { readonly [K in keyof T]: Asked<T[K]> }): Asked<T> {
  const names = Object.keys(queries) as (keyof T)[]
  const isThere = names.every((name) => queries[name].data !== undefined)
  const refused = names.find((name) => queries[name].error)
  return {
    data: isThere ? (Object.fromEntries(names.map((name) => [name, queries[name].data])) as T) : undefined,
    error: refused === undefined ? undefined : queries[refused].error,
    refetch: refused === undefined ? undefined : queries[refused].refetch,
  }
}

import { useEffect } from 'react'

/** A query that is read a page at a time. */
interface Paged {
  readonly hasNextPage: boolean
  readonly isFetching: boolean
  readonly error?: unknown
  fetchNextPage(): unknown
}

/** Reads the next page, where there is one. What was refused is read again by whoever looks at it, not over and over. */
export function readOn({ hasNextPage, isFetching, error, fetchNextPage }: Paged): void {
  if (hasNextPage && !isFetching && !error) void fetchNextPage()
}

/** So many are kept ready behind the one that is looked at. */
const AHEAD = 3

/** Reads on for as long as few are ready. */
export function useReadAhead(ready: number, { hasNextPage, isFetching, error, fetchNextPage }: Paged): void {
  const isShort = ready < AHEAD
  useEffect(() => {
    if (isShort) readOn({ hasNextPage, isFetching, error, fetchNextPage })
  }, [isShort, hasNextPage, isFetching, error, fetchNextPage])
}

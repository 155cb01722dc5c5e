import { useState } from 'react'

/**
 * How many of what only grows are asked for: more when they are wanted, the latest first.
 * @param step at most 1000 in the end
 */
export function useLatest(step: number): {
  readonly limit: number
  /** Asks for more; null where these are all. */
  more(shown: number): (() => void) | null
} {
  const [limit, setLimit] = useState(step)
  return {
    limit,
    more: (shown) => (shown < limit || limit >= MOST ? null : () => setLimit(Math.min(limit + step, MOST))),
  }
}

const MOST = 1000

import { useEffect, useRef } from 'react'

/** How long is waited after the last letter, in milliseconds. */
const PAUSE = 250

/** Does something with what is typed once nobody has typed for a moment. */
export function usePaused(typed: string, onPause: (typed: string) => void): void {
  const latest = useRef(onPause)
  latest.current = onPause
  useEffect(() => {
    const timer = window.setTimeout(() => latest.current(typed), PAUSE)
    return () => window.clearTimeout(timer)
  }, [typed])
}

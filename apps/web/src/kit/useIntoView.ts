import { useEffect, useRef } from 'react'

/** Brings what is chosen into sight, where it is not. @returns for the element that shows it */
export function useIntoView<T extends Element>(chosen: number | null) {
  const shown = useRef<T>(null)
  useEffect(() => {
    if (chosen !== null) shown.current?.scrollIntoView({ block: 'nearest' })
  }, [chosen])
  return shown
}

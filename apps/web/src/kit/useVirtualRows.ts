import { useVirtualizer } from '@tanstack/react-virtual'
import { useEffect, useRef } from 'react'

interface LongTable {
  readonly count: number
  /** Of each row, in pixels. */
  readonly height: number
  /** So many rows before the end more are asked for. */
  readonly ahead: number
  readonly onNearEnd: () => void
}

/** Rows of a long table, of which only those in sight are drawn; more are asked for as the end comes near. */
export function useVirtualRows({ count, height, ahead, onNearEnd }: LongTable) {
  const scroller = useRef<HTMLDivElement>(null)
  const rows = useVirtualizer({
    count,
    getScrollElement: () => scroller.current,
    estimateSize: () => height,
    overscan: 12,
  })
  const lastShown = rows.getVirtualItems().at(-1)?.index ?? 0
  const isNearEnd = lastShown >= count - ahead
  useEffect(() => {
    if (isNearEnd) onNearEnd()
  }, [isNearEnd, onNearEnd])
  return { scroller, rows }
}

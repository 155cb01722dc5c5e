import { type CSSProperties, type ReactNode, useEffect } from 'react'
import type { useVirtualRows } from './useVirtualRows'

interface ChoosableRows<T> {
  readonly table: ReturnType<typeof useVirtualRows>
  readonly items: readonly T[]
  readonly idOf: (item: T) => number
  /** Of each row, in pixels; the same as the table was told. */
  readonly height: number
  readonly chosen: number | null
  readonly onChoose: (id: number | null) => void
  /** How the cells of a row stand beside each other. */
  readonly className: string
  readonly style?: CSSProperties
  readonly children: (item: T, index: number) => ReactNode
}

/**
 * The rows of a long table that are in sight, below its headings. A click chooses one, a second lets go of it; whichever is
 * chosen, by keys too, comes into sight.
 */
export function VirtualRows<T>(props: ChoosableRows<T>) {
  const { table, items, idOf, height, chosen, onChoose, className, style, children } = props
  const { rows } = table
  const chosenAt = items.findIndex((item) => idOf(item) === chosen)
  useEffect(() => {
    if (chosenAt !== -1) rows.scrollToIndex(chosenAt)
  }, [chosenAt, rows])
  return (
    // biome-ignore lint/a11y/noNoninteractiveTabindex: a scrolling region must be reachable by keyboard
    <div ref={table.scroller} className="min-h-0 flex-1 overflow-y-auto" role="rowgroup" tabIndex={0} aria-label="Rows">
      <div className="relative" role="presentation" style={{ height: rows.getTotalSize() }}>
        {rows.getVirtualItems().map(({ index, start }) => {
          const item = items[index]
          if (!item) return null
          const id = idOf(item)
          const isChosen = id === chosen
          return (
            // biome-ignore lint/a11y/useKeyWithClickEvents: keys work on the whole table
            <div
              key={id}
              role="row"
              aria-rowindex={index + 1}
              aria-selected={isChosen}
              onClick={() => onChoose(isChosen ? null : id)}
              className={`${className} absolute inset-x-0 cursor-pointer items-center border-b border-line ${isChosen ? 'bg-lichen' : 'hover:bg-hill'}`}
              style={{ ...style, top: start, height }}
            >
              {children(item, index)}
            </div>
          )
        })}
      </div>
    </div>
  )
}

import { useMemo, useState } from 'react'
import type { Picking } from '../shell/ContactGrid'

export interface PickedContacts extends Picking {
  clear(): void
}

/** Contacts picked one by one. They stay picked while the filter changes, until they are let go. */
export function usePicked(): PickedContacts {
  const [picked, setPicked] = useState<ReadonlySet<number>>(new Set())
  return useMemo(
    () => ({
      picked,
      onPick: (ids, isPicked) =>
        setPicked((before) => {
          const next = new Set(before)
          for (const id of ids) {
            if (isPicked) next.add(id)
            else next.delete(id)
          }
          return next
        }),
      clear: () => setPicked(new Set()),
    }),
    [picked],
  )
}

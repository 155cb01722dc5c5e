import { useState } from 'react'

export type FileState = 'looking' | 'ready' | 'refused' | 'sending'

/** A file, or one sheet of it, that is being looked at. */
export interface BenchFile {
  readonly id: number
  readonly file: File
  readonly sheet: string | null
}

/** The files on the bench, which one is in sight, and how far each is. */
export function useBenchFiles() {
  const [items, setItems] = useState<readonly BenchFile[]>([])
  const [shown, setShown] = useState<number | null>(null)
  const [states, setStates] = useState<Readonly<Record<number, FileState>>>({})
  const add = (files: readonly File[], sheet: string | null = null) => {
    const next = Math.max(0, ...items.map(({ id }) => id)) + 1
    const added = files.map((file, i) => ({ id: next + i, file, sheet }))
    setItems([...items, ...added])
    setShown(added[0]?.id ?? shown)
  }
  const remove = (id: number) => {
    const rest = items.filter((item) => item.id !== id)
    setItems(rest)
    if (shown === id) setShown(rest[0]?.id ?? null)
  }
  return {
    items,
    shown,
    states,
    add,
    remove,
    show: setShown,
    tell: (id: number, state: FileState) => setStates((before) => ({ ...before, [id]: state })),
  }
}

import { useState } from 'react'

export type FileState = 'looking' | 'ready' | 'refused' | 'sending'

/** A file, or one sheet of it, that is being looked at. */
export interface BenchFile {
  readonly id: number
  readonly file: File
  readonly sheet: string | null
}

interface Bench {
  readonly items: readonly BenchFile[]
  readonly shown: number | null
  readonly states: Readonly<Record<number, FileState>>
  /** Of the file that comes next: one that was taken away is never mistaken for another. */
  readonly nextId: number
}

const EMPTY: Bench = { items: [], shown: null, states: {}, nextId: 1 }

/**
 * The files on the bench, which one is in sight, and how far each is. Every change goes by what is there by then: a file
 * may be sent to its end while others come and go.
 */
export function useBenchFiles() {
  const [bench, change] = useState(EMPTY)
  return {
    items: bench.items,
    shown: bench.shown,
    states: bench.states,
    add: (files: readonly File[], sheet: string | null = null) => change((before) => withFiles(before, files, sheet)),
    remove: (id: number) => change((before) => without(before, id)),
    show: (id: number) => change((before) => ({ ...before, shown: id })),
    tell: (id: number, state: FileState) =>
      change((before) => ({ ...before, states: { ...before.states, [id]: state } })),
  }
}

function withFiles(bench: Bench, files: readonly File[], sheet: string | null): Bench {
  const added = files.map((file, i) => ({ id: bench.nextId + i, file, sheet }))
  return {
    ...bench,
    items: [...bench.items, ...added],
    shown: added[0]?.id ?? bench.shown,
    nextId: bench.nextId + added.length,
  }
}

function without(bench: Bench, id: number): Bench {
  const items = bench.items.filter((item) => item.id !== id)
  return { ...bench, items, shown: bench.shown === id ? (items[0]?.id ?? null) : bench.shown }
}

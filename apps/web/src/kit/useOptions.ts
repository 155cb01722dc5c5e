import { useState } from 'react'

export interface Options<T> {
  readonly all: readonly T[]
  /** Which is about to be chosen; null where none is yet. */
  readonly at: number | null
  /** Begins anew, as when something was typed. */
  begin(): void
  take(index: number): void
  /** True where a key was meant for the options. */
  key(name: string): boolean
}

interface Offered<T> {
  /** What is offered now; nothing while they are closed. */
  readonly all: readonly T[]
  /** True where Enter takes the first at once; else one is chosen by the arrows first. */
  readonly isFirstChosen?: boolean
  readonly onTake: (one: T) => void
  readonly onClose: () => void
}

/** Options under a field that is typed into, and the keys that choose one of them. */
export function useOptions<T>({ all, isFirstChosen = false, onTake, onClose }: Offered<T>): Options<T> {
  const start = isFirstChosen ? 0 : null
  const [chosen, setAt] = useState<number | null>(start)
  const at = chosen === null || all.length === 0 ? chosen : Math.min(chosen, all.length - 1)
  const begin = () => setAt(start)
  const close = () => {
    onClose()
    begin()
  }
  const take = (index: number) => {
    const one = all[index]
    if (one !== undefined) onTake(one)
    close()
  }
  const key = (name: string): boolean => {
    if (all.length === 0) return false
    if (name === 'ArrowDown') setAt(at === null ? 0 : (at + 1) % all.length)
    else if (name === 'ArrowUp') setAt(at === null ? all.length - 1 : (at + all.length - 1) % all.length)
    else if (name === 'Enter' && at !== null) take(at)
    else if (name === 'Escape') close()
    else return false
    return true
  }
  return { all, at, begin, take, key }
}

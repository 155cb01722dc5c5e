import { useState } from 'react'

/** Options under a field that is typed into, and the keys that choose one of them. */
export function useOptions<T>(all: readonly T[], onTake: (one: T) => void) {
  const [isOpen, setIsOpen] = useState(false)
  const [at, setAt] = useState(0)
  const shown = isOpen ? all : []
  const current = Math.min(at, Math.max(0, shown.length - 1))
  const close = () => setIsOpen(false)
  const open = () => {
    setIsOpen(true)
    setAt(0)
  }
  const take = (index: number) => {
    const one = shown[index]
    if (one === undefined) return
    onTake(one)
    close()
  }
  /** True where the key was meant for the options. */
  const key = (name: string): boolean => {
    if (shown.length === 0) return false
    if (name === 'ArrowDown') setAt((current + 1) % shown.length)
    else if (name === 'ArrowUp') setAt((current + shown.length - 1) % shown.length)
    else if (name === 'Enter') take(current)
    else if (name === 'Escape') close()
    else return false
    return true
  }
  return { shown, at: current, open, close, take, key }
}

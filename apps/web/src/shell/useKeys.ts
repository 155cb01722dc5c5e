import { useEffect, useRef } from 'react'

/** What each key does in a view. Two keys in a row are written with a space: `g t`. */
export type KeyMap = Readonly<Record<string, (event: KeyboardEvent) => void>>

const PATIENCE = 900

const isTyping = (target: EventTarget | null): boolean =>
  target instanceof HTMLElement &&
  !(target instanceof HTMLInputElement && target.type === 'checkbox') &&
  (target.isContentEditable || /^(?:INPUT|TEXTAREA|SELECT)$/.test(target.tagName))

/** Enter on a button or a link is the button's own. */
const isActed = (event: KeyboardEvent): boolean =>
  event.key === 'Enter' && event.target instanceof HTMLElement && event.target.closest('button, a, summary') !== null

/** Listens for single keys and sequences, never while something is being typed or a dialog is open. */
export function useKeys(keys: KeyMap): void {
  const latest = useRef(keys)
  latest.current = keys
  useEffect(() => {
    let first = ''
    let timer = 0
    const forget = () => {
      first = ''
    }
    const listen = (event: KeyboardEvent) => {
      const isPalette = (event.ctrlKey || event.metaKey) && event.key.toLowerCase() === 'k'
      if (!isPalette && (event.ctrlKey || event.metaKey || event.altKey || isTyping(event.target) || isActed(event)))
        return
      if (!isPalette && document.querySelector('[role="dialog"]')) return
      const name = isPalette ? 'Ctrl K' : event.key
      const act = latest.current[first ? `${first} ${name}` : name]
      const isStart = !act && Object.keys(latest.current).some((key) => key.startsWith(`${name} `))
      window.clearTimeout(timer)
      first = isStart ? name : ''
      if (isStart) timer = window.setTimeout(forget, PATIENCE)
      if (!act) return
      event.preventDefault()
      act(event)
    }
    window.addEventListener('keydown', listen)
    return () => window.removeEventListener('keydown', listen)
  }, [])
}

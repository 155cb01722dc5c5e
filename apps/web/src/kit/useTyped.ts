import { useState } from 'react'
import { usePaused } from './usePaused'

interface Draft {
  readonly typed: string
  /** What was kept while this was typed. */
  readonly over: string
  /** What was handed on to be kept and has not come back yet, in order: one may be handed on before another is back. */
  readonly handedOn: readonly string[]
}

/**
 * A text that is kept elsewhere (in the address, say) and typed here: it is handed on once nobody has typed for a
 * moment. Where it is changed elsewhere, that replaces what was typed; nothing but what somebody typed is handed on.
 * @returns what stands in the field, and how it is changed
 */
export function useTyped(kept: string, keep: (typed: string) => void): [string, (typed: string) => void] {
  const [draft, setDraft] = useState<Draft | null>(null)
  const current = draft && draft.over !== kept ? followed(draft, kept) : draft
  if (current !== draft) setDraft(current)
  const typed = current?.typed ?? kept
  // Each goes by the draft as it then is: a letter may be typed before it has been drawn that others were handed on.
  usePaused(typed, () => {
    if (typed === kept) return
    setDraft((now) => now && { ...now, handedOn: [...now.handedOn, typed] })
    keep(typed)
  })
  const type = (next: string) =>
    setDraft((now) => ({ typed: next, over: now?.over ?? kept, handedOn: now?.handedOn ?? [] }))
  return [typed, type]
}

/** What is left of a draft when what is kept has changed: nothing, unless it is a text of its own that came back. */
function followed({ typed, handedOn }: Draft, kept: string): Draft | null {
  const back = handedOn.indexOf(kept)
  if (back < 0) return null
  const onTheirWay = handedOn.slice(back + 1)
  return typed === kept && onTheirWay.length === 0 ? null : { typed, over: kept, handedOn: onTheirWay }
}

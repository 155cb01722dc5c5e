import { useState } from 'react'
import { usePaused } from './usePaused'

interface Draft {
  readonly typed: string
  /** What was kept while this was typed. */
  readonly over: string
  /** What was handed on to be kept, where it has not come back yet. */
  readonly handedOn?: string
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
  usePaused(typed, () => {
    if (typed === kept) return
    setDraft({ typed, over: kept, handedOn: typed })
    keep(typed)
  })
  return [typed, (next) => setDraft({ ...current, typed: next, over: kept })]
}

/** What is left of a draft when what is kept has changed: letters typed since it was handed on. */
const followed = (draft: Draft, kept: string): Draft | null =>
  draft.handedOn === kept && draft.typed !== kept ? { typed: draft.typed, over: kept } : null

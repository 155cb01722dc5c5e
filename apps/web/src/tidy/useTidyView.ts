import { CHANGE_CODES, type ChangeCode } from '@upper-field/core/tidy'
import { useSearchParams } from 'react-router'

/** Which repair, step and part of the stage is open. All of it lives in the address. */
export function useTidyView() {
  const [search, setSearch] = useSearchParams()
  const code = CHANGE_CODES.find((one) => one === search.get('code')) ?? null
  const set = (changes: Record<string, string | null>) =>
    setSearch(
      (before) => {
        const next = new URLSearchParams(before)
        for (const [name, value] of Object.entries(changes)) {
          if (value) next.set(name, value)
          else next.delete(name)
        }
        return next
      },
      { replace: true },
    )
  return {
    code,
    stepId: search.get('step'),
    /** A filter from the terrace or the search opens the contacts it chooses. */
    showsContacts: search.get('show') === 'contacts' || (search.get('q') !== null && search.get('show') !== 'repairs'),
    openCode: (next: ChangeCode | null) => set({ code: next, contact: null }),
    openStep: (next: string | null) => set({ step: next, contact: null, code: null }),
    show: (what: 'contacts' | 'repairs') => set({ show: what, contact: null }),
  }
}

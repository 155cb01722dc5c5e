import { useSearchParams } from 'react-router'

/** What of Pair can be shown, in the order of its tabs. */
export const PAIR_TABS = ['pairs', 'contacts', 'lines', 'lists'] as const
export type PairTab = (typeof PAIR_TABS)[number]

/** What of Pair is shown; a filter opens the contacts. It lives in the address. */
export function usePairTab() {
  const [search, setSearch] = useSearchParams()
  const asked = PAIR_TABS.find((tab) => tab === search.get('show'))
  const shown: PairTab = asked ?? (search.get('q') === null ? 'pairs' : 'contacts')
  return {
    shown,
    show: (what: PairTab) =>
      setSearch(
        (before) => {
          const next = new URLSearchParams(before)
          next.set('show', what)
          next.delete('contact')
          return next
        },
        { replace: true },
      ),
  }
}

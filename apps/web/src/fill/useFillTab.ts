import { useSearchParams } from 'react-router'

/** What of Fill can be shown, in the order of its tabs. */
export const FILL_TABS = ['waterfall', 'sample'] as const
export type FillTab = (typeof FILL_TABS)[number]

/** What of Fill is shown. It lives in the address. */
export function useFillTab() {
  const [search, setSearch] = useSearchParams()
  return {
    shown: FILL_TABS.find((tab) => tab === search.get('show')) ?? 'waterfall',
    show: (what: FillTab) =>
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

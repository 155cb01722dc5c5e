import { useSearchParams } from 'react-router'

/** Whether pairs to decide or contacts are shown; a filter opens the contacts. It lives in the address. */
export function usePairTab() {
  const [search, setSearch] = useSearchParams()
  const shown = search.get('show')
  return {
    showsContacts: shown === 'contacts' || (search.get('q') !== null && shown !== 'pairs'),
    show: (what: 'contacts' | 'pairs') =>
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

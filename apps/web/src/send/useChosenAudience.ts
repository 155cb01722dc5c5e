import { useSearchParams } from 'react-router'

/** Which audience of the board is open: it lives in the address. */
export function useChosenAudience() {
  const [search, setSearch] = useSearchParams()
  return {
    chosen: search.get('audience'),
    choose: (audienceId: string | null) =>
      setSearch(
        (before) => {
          const next = new URLSearchParams(before)
          if (audienceId === null) next.delete('audience')
          else next.set('audience', audienceId)
          next.delete('contact')
          return next
        },
        { replace: true },
      ),
  }
}

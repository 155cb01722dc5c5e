import { useSearchParams } from 'react-router'

/** What of a stage is shown, out of its tabs. It lives in the address. */
export function useShown<T extends string>(tabs: readonly T[], usual: (search: URLSearchParams) => T) {
  const [search, setSearch] = useSearchParams()
  const asked = tabs.find((tab) => tab === search.get('show'))
  return {
    shown: asked ?? usual(search),
    show: (what: T) =>
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

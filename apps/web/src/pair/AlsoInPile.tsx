import { useReadAlsoInQuery } from '../api'
import { PileGroup } from '../shell/Sieve'
import { useListView } from '../shell/useListView'

/** Contacts that are in another list already, a pile for each. */
export function AlsoInPile() {
  const { listId, text } = useListView()
  const { data: others = [] } = useReadAlsoInQuery({ params: { listId }, query: { filter: text } })
  const names = new Map(others.map((other) => [other.listId, other.name]))
  return (
    <PileGroup
      pile="in"
      counts={Object.fromEntries(others.map((other) => [other.listId, other.contacts]))}
      nameOf={(id) => names.get(id) ?? 'another list'}
    />
  )
}

import { useListView } from './useListView'

/**
 * Whom a key goes to in a table of contacts: so many places from the chosen one, no further than to its ends, or the first
 * where nobody of them is chosen. A contact that has several lines is gone to once.
 * @param ids of the lines, in their order
 * @returns whoever is chosen, where there are none
 */
export function neighbour(ids: readonly number[], chosen: number | null, by: number): number | null {
  const each = [...new Set(ids)]
  const at = chosen === null ? -1 : each.indexOf(chosen)
  const next = at === -1 ? 0 : Math.max(0, Math.min(each.length - 1, at + by))
  return each[next] ?? chosen
}

/** Chooses the contact so many lines further on. The lines of a table, in their order, are looked through when a key asks. */
export function useNeighbours<T>(lines: readonly T[], idOf: (line: T) => number): (by: number) => () => void {
  const view = useListView()
  return (by) => () => view.choose(neighbour(lines.map(idOf), view.contactId, by))
}

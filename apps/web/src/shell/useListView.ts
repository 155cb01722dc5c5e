import type { ContactSort } from '@upper-field/contract'
import {
  type Columns,
  type Filter,
  type FilterField,
  type FilterIssue,
  parseFilter,
  togglePile,
  writeFilter,
} from '@upper-field/core/split'
import { useCallback, useMemo } from 'react'
import { useParams, useSearchParams } from 'react-router'
import { useReadColumnsQuery } from '../api'

/** What of a list is being looked at. All of it lives in the address, so that a link brings back the view. */
export interface ListView {
  readonly listId: string
  readonly text: string
  readonly filter: Filter
  readonly issues: readonly FilterIssue[]
  /** Keys of the list's own columns. */
  readonly columns: Columns
  readonly contactId: number | null
  readonly sort: ContactSort
  setText(text: string): void
  toggle(field: FilterField, value: string): void
  choose(contactId: number | null): void
  sortBy(sort: ContactSort): void
}

/** Keys of the list's own columns; until they are known every name may be one. */
function useColumns(listId: string): Columns {
  const { data } = useReadColumnsQuery({ params: { listId } }, { skip: listId === '' })
  return useMemo(() => (data ? new Set(data.map(({ key }) => key)) : 'any'), [data])
}

export function useListView(): ListView {
  const { listId = '' } = useParams()
  const [search, setSearch] = useSearchParams()
  const text = search.get('q') ?? ''
  const chosen = search.get('contact')
  const columns = useColumns(listId)
  const { filter, issues } = useMemo(() => parseFilter(text, columns), [text, columns])
  const set = useCallback(
    (name: string, value: string | null) =>
      setSearch(
        (before) => {
          const next = new URLSearchParams(before)
          if (value) next.set(name, value)
          else next.delete(name)
          return next
        },
        { replace: true },
      ),
    [setSearch],
  )
  return {
    listId,
    text,
    filter,
    issues,
    columns,
    contactId: chosen ? Number(chosen) : null,
    sort: search.get('sort') === 'call' ? 'call' : 'row',
    sortBy: (sort) => set('sort', sort === 'row' ? null : sort),
    setText: (next) => set('q', next),
    toggle: (field, value) => set('q', writeFilter(togglePile(filter, field, value))),
    choose: (contactId) => set('contact', contactId === null ? null : String(contactId)),
  }
}

import type { ContactLine } from '@upper-field/contract'
import { type ReactNode, useMemo, useRef } from 'react'
import { useReadContactsInfiniteQuery } from '../api'
import { useVirtualRows } from '../kit/useVirtualRows'
import { VirtualRows } from '../kit/VirtualRows'
import { count } from '../words/format'
import { lastRead, Refused, Unanswered } from './Answer'
import { readOn } from './readOn'
import { useKeys } from './useKeys'
import { useListView } from './useListView'
import { useNeighbours } from './useNeighbours'

export interface GridColumn {
  readonly title: string
  /** CSS grid track. */
  readonly width: string
  readonly cell: (contact: ContactLine) => ReactNode
}

/** Contacts that are picked one by one, for what is done to several of them. */
export interface Picking {
  readonly picked: ReadonlySet<number>
  onPick(ids: readonly number[], isPicked: boolean): void
}

const ROW = 31
const PICK_WIDTH = '20px'

/** The contacts a filter chooses, read a page at a time as they are looked at. */
export function ContactGrid({
  columns,
  extraFilter = '',
  emptyText = 'Nobody fits this filter.',
  picking,
  canSort = false,
}: {
  columns: readonly GridColumn[]
  extraFilter?: string
  emptyText?: string
  picking?: Picking
  /** Whoever may be called now can be put first. */
  canSort?: boolean
}) {
  const view = useListView()
  const filter = [view.text, extraFilter].filter(Boolean).join(' ')
  const asked = useReadContactsInfiniteQuery({ listId: view.listId, filter, sort: canSort ? view.sort : 'row' })
  // Contacts of the filter before are shown while those of a new one are read, but not beside its refusal.
  const data = asked.error ? lastRead(asked) : asked.data
  const contacts = useMemo(() => data?.pages.flatMap((page) => page.contacts) ?? [], [data])
  const table = useVirtualRows({
    count: contacts.length,
    height: ROW,
    ahead: 40,
    onNearEnd: () => readOn(asked),
  })

  const go = useNeighbours(contacts, ({ id }) => id)
  const lastPicked = useRef<number | null>(null)
  /** Picks one or lets it go; with Shift, all from the last one on. */
  const pick = (index: number, isRange: boolean) => {
    const contact = contacts[index]
    if (!contact || !picking) return
    const from = isRange && lastPicked.current !== null ? lastPicked.current : index
    const ids = contacts.slice(Math.min(from, index), Math.max(from, index) + 1).map(({ id }) => id)
    picking.onPick(ids, !picking.picked.has(contact.id))
    lastPicked.current = index
  }
  useKeys({
    x: () =>
      pick(
        contacts.findIndex(({ id }) => id === view.contactId),
        false,
      ),
    j: go(1),
    k: go(-1),
    Escape: () => view.choose(null),
    Enter: () => document.getElementById('story')?.focus(),
  })

  if (data === undefined) return <Unanswered of={[asked]} what="contacts" />
  const total = data.pages[0]
  const template = [...(picking ? [PICK_WIDTH] : []), ...columns.map(({ width }) => width)].join(' ')
  return (
    <div className="flex min-h-0 flex-1 flex-col">
      <Refused by={[asked]} />
      <div
        role="table"
        aria-label="Contacts"
        aria-rowcount={total?.total ?? 0}
        className="flex min-h-0 flex-1 flex-col"
      >
        <div
          role="row"
          className="grid gap-3 border-b border-edge px-2 pb-1.5 text-[13px] font-semibold text-soft"
          style={{ gridTemplateColumns: template }}
        >
          {picking ? (
            <div role="columnheader">
              <span className="sr-only">Picked</span>
            </div>
          ) : null}
          {columns.map(({ title }) => (
            <div role="columnheader" key={title}>
              {title}
            </div>
          ))}
        </div>
        <VirtualRows
          table={table}
          items={contacts}
          idOf={({ id }) => id}
          height={ROW}
          chosen={view.contactId}
          onChoose={view.choose}
          className="grid gap-3 px-2"
          style={{ gridTemplateColumns: template }}
        >
          {(contact, index) => (
            <>
              {picking ? (
                <div role="cell">
                  <input
                    type="checkbox"
                    className="block size-4 accent-moss"
                    aria-label={`Pick ${contact.fullName || contact.company || 'this contact'}`}
                    checked={picking.picked.has(contact.id)}
                    onChange={() => {}}
                    onClick={(event) => {
                      event.stopPropagation()
                      pick(index, event.shiftKey)
                    }}
                  />
                </div>
              ) : null}
              {columns.map(({ title, cell }) => (
                <div role="cell" key={title} className="min-w-0 truncate">
                  {cell(contact)}
                </div>
              ))}
            </>
          )}
        </VirtualRows>
      </div>
      {contacts.length === 0 ? <p className="shrink-0 px-2 py-4 text-soft">{emptyText}</p> : null}
      <div className="flex justify-between border-t border-line px-2 pt-1.5 text-[13px] text-soft">
        <p role="status">
          {count(total?.total ?? 0)}
          {total?.isCapped ? '+' : ''} {total?.total === 1 ? 'contact' : 'contacts'}
          {view.contactId === null && contacts.length > 0 ? ' · choose one for its story' : ''}
        </p>
        {canSort ? (
          <label className="flex items-center gap-1.5">
            <input
              type="checkbox"
              checked={view.sort === 'call'}
              onChange={(event) => view.sortBy(event.target.checked ? 'call' : 'row')}
            />
            Who may be called now first
          </label>
        ) : null}
      </div>
    </div>
  )
}

import type { SuppressionList } from '@upper-field/contract'
import { SUPPRESSION_KINDS, type SuppressionKind } from '@upper-field/core/pair'
import { SCOPES, type Scope } from '@upper-field/core/split'
import { useState } from 'react'
import { useSearchParams } from 'react-router'
import {
  useMakeSuppressionListMutation,
  useReadSuppressionEntriesInfiniteQuery,
  useReadSuppressionListsQuery,
} from '../api'
import { Button } from '../kit/Button'
import { Dialog } from '../kit/Dialog'
import { SelectField, TextField } from '../kit/Field'
import { Empty } from '../kit/Notice'
import { useMayChange } from '../people/useRole'
import { ReadState, Refused } from '../shell/Answer'
import { count, date, plural } from '../words/format'
import { SCOPE } from '../words/sentences'
import { AddPeople } from './AddPeople'
import { Entries } from './Entries'
import { Files } from './Files'

const SUPPRESSION_KIND: Record<SuppressionKind, string> = {
  'opt-outs': 'Opt-outs',
  register: 'Register',
  customers: 'Customers',
  competitors: 'Competitors',
}

const scopeText = (scope: Scope): string => (scope === 'all' ? 'from everything' : `from ${SCOPE[scope]} only`)

/** People who must not be contacted, whatever list they are in. */
export function SuppressionView() {
  const [search, setSearch] = useSearchParams()
  const asked = useReadSuppressionListsQuery({})
  const { data: lists } = asked
  const [isNaming, setNaming] = useState(false)
  const mayChange = useMayChange()
  const open = lists?.find(({ id }) => id === search.get('list')) ?? lists?.[0]
  const choose = (id: string) => setSearch({ list: id }, { replace: true })
  return (
    <div className="flex h-full min-h-0">
      <nav aria-label="Suppression lists" className="w-60 shrink-0 overflow-y-auto border-r border-line px-4 py-4">
        <ul>
          {lists?.map((list) => (
            <li key={list.id}>
              <button
                type="button"
                aria-pressed={list.id === open?.id}
                onClick={() => choose(list.id)}
                className={`flex w-full items-baseline justify-between gap-2 rounded-small px-2 py-1.5 text-left ${list.id === open?.id ? 'bg-lichen' : 'hover:bg-hill'}`}
              >
                <span className="min-w-0">
                  <span className="block truncate font-semibold">{list.name}</span>
                  <span className="block text-[12.5px] text-soft">
                    {SUPPRESSION_KIND[list.kind]}, {scopeText(list.scope)}
                  </span>
                </span>
                <span className="num">{count(list.entries)}</span>
              </button>
            </li>
          ))}
        </ul>
        {mayChange ? (
          <Button className="mt-3 w-full" onClick={() => setNaming(true)}>
            Make a suppression list
          </Button>
        ) : null}
      </nav>
      <main className="flex min-h-0 min-w-0 flex-1 flex-col overflow-y-auto px-6 py-5">
        <ReadState of={asked} what="the suppression lists" />
        {lists && !open ? (
          <>
            <h1>Suppression</h1>
            <Empty title="Nobody is suppressed yet">
              <p className="text-soft">
                Numbers, addresses and domains of people who said no, of customers, or of competitors. Whoever matches
                is marked in every list at once, stays visible, and is in no file and no audience.
              </p>
            </Empty>
          </>
        ) : null}
        {open ? <OneList key={open.id} list={open} mayChange={mayChange} /> : null}
      </main>
      {isNaming ? <NewList onClose={() => setNaming(false)} onMade={choose} /> : null}
    </div>
  )
}

function OneList({ list, mayChange }: { list: SuppressionList; mayChange: boolean }) {
  const asked = useReadSuppressionEntriesInfiniteQuery({ suppressionListId: list.id })
  const { data, hasNextPage, fetchNextPage } = asked
  const entries = data?.pages.flatMap((page) => page.entries) ?? []
  return (
    <>
      <div className="flex flex-wrap items-baseline gap-x-3 pb-3">
        <h1>{list.name}</h1>
        <p className="text-soft">
          {SUPPRESSION_KIND[list.kind]} · kept out of {SCOPE[list.scope]} · {plural(list.entries, 'entry', 'entries')} ·
          since {date(list.createdAt)}
        </p>
      </div>
      {mayChange ? <AddPeople list={list} /> : null}
      <Files listId={list.id} mayChange={mayChange} />
      <ReadState of={asked} what="the entries" />
      {entries.length > 0 ? <Entries entries={entries} mayChange={mayChange} /> : null}
      {hasNextPage ? (
        <Button className="mt-3 self-start" onClick={() => void fetchNextPage()}>
          Show more
        </Button>
      ) : null}
    </>
  )
}

function NewList({ onClose, onMade }: { onClose: () => void; onMade: (id: string) => void }) {
  const [name, setName] = useState('')
  const [kind, setKind] = useState<SuppressionKind>('opt-outs')
  const [scope, setScope] = useState<Scope>('all')
  const [make, making] = useMakeSuppressionListMutation()
  const submit = async () => {
    const { data } = await make({ body: { name: name.trim(), kind, scope } })
    if (!data) return
    onMade(data.id)
    onClose()
  }
  return (
    <Dialog title="Make a suppression list" isOpen onClose={onClose}>
      <form
        className="flex flex-col gap-3"
        onSubmit={(event) => {
          event.preventDefault()
          if (name.trim() !== '') void submit()
        }}
      >
        <TextField label="Name" value={name} onChange={(event) => setName(event.target.value)} autoComplete="off" />
        <SelectField label="For" value={kind} onChange={(event) => setKind(event.target.value as SuppressionKind)}>
          {SUPPRESSION_KINDS.map((one) => (
            <option key={one} value={one}>
              {SUPPRESSION_KIND[one]}
            </option>
          ))}
        </SelectField>
        <SelectField label="Keep them out of" value={scope} onChange={(event) => setScope(event.target.value as Scope)}>
          {SCOPES.map((one) => (
            <option key={one} value={one}>
              {SCOPE[one]}
            </option>
          ))}
        </SelectField>
        <Refused by={[making]} />
        <Button look="main" type="submit" disabled={name.trim() === '' || making.isLoading}>
          Make it
        </Button>
      </form>
    </Dialog>
  )
}

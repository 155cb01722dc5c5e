import type { List } from '@upper-field/contract'
import { useState } from 'react'
import { Link, useNavigate, useSearchParams } from 'react-router'
import { useChangeListMutation, useMakeListMutation, useReadListsQuery } from '../api'
import { Button, TextButton } from '../kit/Button'
import { Dialog } from '../kit/Dialog'
import { TextField } from '../kit/Field'
import { Empty } from '../kit/Notice'
import { useMayChange } from '../people/useRole'
import { ReadState, Refused } from '../shell/Answer'
import { SmallTerrace } from '../shell/Terrace'
import { count, plural, time } from '../words/format'
import { FoundInLists, SearchAllLists, useSearchedText } from './SearchAllLists'
import { Today } from './Today'

/** All lists, the one changed last first, with what each has become of. */
export function ListsView() {
  const [search, setSearch] = useSearchParams()
  const archived = search.get('archived') === 'yes' ? 'yes' : 'no'
  const asked = useReadListsQuery({ query: { archived } })
  const { data: lists } = asked
  const [naming, setNaming] = useState<List | 'new' | null>(null)
  const mayChange = useMayChange()
  const { text } = useSearchedText()
  return (
    <div className="flex h-full min-h-0">
      <SearchAllLists />
      <main className="flex h-full min-w-0 flex-1 flex-col overflow-y-auto px-7 py-5">
        <div className="flex items-center justify-between pb-4">
          <h1>{archived === 'yes' ? 'Archived lists' : 'Lists'}</h1>
          <div className="flex items-center gap-4">
            <TextButton onClick={() => setSearch(archived === 'yes' ? {} : { archived: 'yes' })}>
              {archived === 'yes' ? 'Back to the lists' : 'Archived lists'}
            </TextButton>
            {mayChange && archived === 'no' ? (
              <Button look="main" onClick={() => setNaming('new')}>
                Make a list
              </Button>
            ) : null}
          </div>
        </div>
        <ReadState of={asked} what="the lists" />
        {lists?.length === 0 ? (
          <Empty title={archived === 'yes' ? 'Nothing is archived' : 'No list yet'}>
            <p>
              {archived === 'yes'
                ? 'An archived list is kept whole and can be brought back.'
                : 'A list holds the contacts you work on for one purpose. Make one, then bring in a file.'}
            </p>
            {mayChange && archived === 'no' ? (
              <Button look="main" onClick={() => setNaming('new')}>
                Make a list
              </Button>
            ) : null}
          </Empty>
        ) : null}
        {text === '' ? (
          <ul>
            {lists?.map((list) => (
              <ListLine key={list.id} list={list} onRename={mayChange ? () => setNaming(list) : null} />
            ))}
          </ul>
        ) : (
          <FoundInLists text={text} />
        )}
        {naming ? <NameDialog list={naming === 'new' ? null : naming} onClose={() => setNaming(null)} /> : null}
      </main>
      <Today />
    </div>
  )
}

function ListLine({ list, onRename }: { list: List; onRename: (() => void) | null }) {
  const [change, { error }] = useChangeListMutation()
  const sent = list.terrace.at(-1)?.count ?? 0
  const reachable = list.terrace.find(({ stage }) => stage === 'fill')?.count ?? 0
  return (
    <li className="grid grid-cols-[minmax(0,1.2fr)_minmax(0,1.6fr)_auto] items-center gap-5 border-t border-line py-4">
      <div className="min-w-0">
        <Link
          to={`/lists/${list.id}/${list.batches === 0 ? 'bring' : 'tidy'}`}
          className="block truncate font-heading text-[17px] font-semibold hover:underline"
        >
          {list.name}
        </Link>
        <p className="text-soft">
          {list.batches === 0
            ? 'nothing brought in yet'
            : `${plural(list.contacts, 'contact')} from ${plural(list.batches, 'batch', 'batches')}`}
        </p>
        <p className="text-[13px] text-soft">changed {time(list.changedAt)}</p>
        <Refused by={[{ error }]} />
      </div>
      <div className="min-w-0">
        <SmallTerrace steps={list.terrace} />
        <p className="pt-1 text-[13px] text-soft">
          <span className="num">{count(reachable)}</span> can be reached, <span className="num">{count(sent)}</span>{' '}
          sent
        </p>
      </div>
      <div className="flex w-16 flex-col items-end gap-1 text-[13px]">
        {onRename ? (
          <>
            <TextButton onClick={onRename} aria-label={`Rename ${list.name}`}>
              Rename
            </TextButton>
            <TextButton
              onClick={() => void change({ params: { listId: list.id }, body: { archived: !list.archivedAt } })}
              aria-label={`${list.archivedAt ? 'Bring back' : 'Archive'} ${list.name}`}
            >
              {list.archivedAt ? 'Bring back' : 'Archive'}
            </TextButton>
          </>
        ) : null}
      </div>
    </li>
  )
}

function NameDialog({ list, onClose }: { list: List | null; onClose: () => void }) {
  const [name, setName] = useState(list?.name ?? '')
  const [make, making] = useMakeListMutation()
  const [change, changing] = useChangeListMutation()
  const navigate = useNavigate()
  const error = making.error ?? changing.error
  const submit = async () => {
    if (list) {
      const changed = await change({ params: { listId: list.id }, body: { name } })
      if (!changed.error) onClose()
      return
    }
    const made = await make({ body: { name } })
    if (made.data) await navigate(`/lists/${made.data.id}/bring`)
  }
  return (
    <Dialog title={list ? 'Rename the list' : 'Make a list'} isOpen onClose={onClose}>
      <form
        onSubmit={(event) => {
          event.preventDefault()
          void submit()
        }}
        className="flex flex-col gap-4"
      >
        <TextField
          label="Name"
          value={name}
          onChange={(event) => setName(event.target.value)}
          maxLength={120}
          required
          autoFocus
          hint="What the list is for, such as “Autumn terraces”."
        />
        <Refused by={[{ error }]} />
        <div className="flex justify-end gap-2">
          <Button onClick={onClose}>Cancel</Button>
          <Button look="main" type="submit" disabled={name.trim() === '' || making.isLoading || changing.isLoading}>
            {list ? 'Rename' : 'Make the list'}
          </Button>
        </div>
      </form>
    </Dialog>
  )
}

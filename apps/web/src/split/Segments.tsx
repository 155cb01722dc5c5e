import { X } from 'lucide-react'
import { useState } from 'react'
import { useKeepSegmentMutation, useReadSegmentsQuery, useRemoveSegmentMutation } from '../api'
import { AskFirst } from '../kit/AskFirst'
import { Button } from '../kit/Button'
import { TextField } from '../kit/Field'
import { useMayChange } from '../people/useRole'
import { Refused } from '../shell/Answer'
import { useListView } from '../shell/useListView'
import { count } from '../words/format'

/** Filters saved by a name, each with how many it means now; and the one that is open, to be saved. */
export function Segments() {
  const { listId, text, setText } = useListView()
  const { data: segments = [] } = useReadSegmentsQuery({ params: { listId } })
  const [remove, removing] = useRemoveSegmentMutation()
  const mayChange = useMayChange()
  if (segments.length === 0 && (text === '' || !mayChange)) return null
  return (
    <section aria-label="Segments" className="border-t border-line pt-3">
      <h2 className="pb-1">Segments</h2>
      <Refused by={[removing]} />
      <ul>
        {segments.map(({ id, name, filter, contacts }) => (
          <li key={id} className="flex items-center gap-2">
            <button
              type="button"
              aria-pressed={filter === text}
              title={filter}
              className={`flex min-w-0 flex-1 justify-between gap-2 rounded-small px-1.5 py-0.5 text-left ${filter === text ? 'bg-lichen font-semibold' : 'hover:bg-hill'}`}
              onClick={() => setText(filter === text ? '' : filter)}
            >
              <span className="truncate">{name}</span>
              <span className="num">{count(contacts)}</span>
            </button>
            {mayChange ? (
              <AskFirst
                title={`Forget the segment “${name}”?`}
                says="Nobody in it is changed: the filter alone goes."
                does="Forget it"
                onDo={() => void remove({ params: { segmentId: id } })}
              >
                {(ask) => (
                  <button
                    type="button"
                    aria-label={`Forget the segment ${name}`}
                    className="rounded-small p-1 text-soft hover:bg-lichen"
                    onClick={ask}
                  >
                    <X size={14} aria-hidden="true" />
                  </button>
                )}
              </AskFirst>
            ) : null}
          </li>
        ))}
      </ul>
      {mayChange && text !== '' && !segments.some(({ filter }) => filter === text) ? (
        <SaveSegment names={segments.map(({ name }) => name)} />
      ) : null}
    </section>
  )
}

function SaveSegment({ names }: { names: readonly string[] }) {
  const { listId, text } = useListView()
  const [name, setName] = useState('')
  const [keep, keeping] = useKeepSegmentMutation()
  const submit = async () => {
    const { error } = await keep({ params: { listId }, body: { name: name.trim(), filter: text } })
    if (!error) setName('')
  }
  return (
    <form
      className="flex flex-col gap-2 pt-2"
      onSubmit={(event) => {
        event.preventDefault()
        if (name.trim() !== '') void submit()
      }}
    >
      <TextField
        label="Save this filter as a segment"
        placeholder="Name"
        value={name}
        onChange={(event) => setName(event.target.value)}
        autoComplete="off"
      />
      <Refused by={[keeping]} />
      <Button type="submit" disabled={name.trim() === '' || keeping.isLoading}>
        {names.includes(name.trim()) ? 'Replace the segment' : 'Save the segment'}
      </Button>
    </form>
  )
}

import { CircleHelp } from 'lucide-react'
import { useRef, useState } from 'react'
import { useReadColumnsQuery, useReadPilesQuery } from '../api'
import { Key, TextButton } from '../kit/Button'
import { OptionList, optionsTold } from '../kit/OptionList'
import { useOptions } from '../kit/useOptions'
import { useTyped } from '../kit/useTyped'
import { type Completion, completionsOf } from './completions'
import { FilterHelp } from './FilterHelp'
import { issueText, mended } from './filterWords'
import { useListView } from './useListView'

const COMPLETIONS = 'filter-completions'

/** Free words, facets and conditions, typed: `line:mobile country:GB oldershaw`. */
export function SearchBox() {
  const { text, setText, issues } = useListView()
  const [typed, setTyped] = useTyped(text, setText)
  // While somebody types on, what is said of the text before is no longer so, and to mend that would take the rest away.
  const issue = typed === text ? issues[0] : undefined
  const [isHelping, setIsHelping] = useState(false)
  const completing = useCompletions(typed, setTyped)
  return (
    <div className="relative flex items-center gap-1">
      <label htmlFor="list-filter" className="sr-only">
        Filter by name, company, number, e-mail or any field
      </label>
      <div className="relative">
        <input
          id="list-filter"
          ref={completing.field}
          value={typed}
          {...optionsTold(COMPLETIONS, completing.options)}
          onChange={(event) => {
            setTyped(event.target.value)
            completing.look(event.target.selectionStart ?? event.target.value.length)
          }}
          onBlur={completing.close}
          onKeyDown={(event) => {
            if (completing.options.key(event.key)) event.preventDefault()
            else if (event.key === 'Enter') setText(typed)
            else if (event.key === 'Escape') event.currentTarget.blur()
          }}
          placeholder="line:mobile country:GB …"
          spellCheck={false}
          className="num min-h-7 w-64 rounded-small border border-edge bg-surface px-2 pr-8 text-[13px] placeholder:text-soft"
        />
        <span className="absolute right-1.5 top-1">
          <Key>/</Key>
        </span>
        <OptionList
          id={COMPLETIONS}
          label="Ways to go on"
          options={completing.options}
          keyOf={({ whole }) => whole}
          shown={({ text: shown }) => shown}
          className="top-8 min-w-40"
          optionClass="num py-0.5 text-[13px]"
        />
      </div>
      <button
        type="button"
        aria-label="How filters are written"
        className="rounded-small p-1 text-soft hover:bg-lichen"
        onClick={() => setIsHelping(true)}
      >
        <CircleHelp size={16} aria-hidden="true" />
      </button>
      {isHelping ? <FilterHelp onClose={() => setIsHelping(false)} /> : null}
      {issue && completing.options.all.length === 0 ? (
        <p
          role="status"
          className="absolute right-0 top-9 z-30 whitespace-nowrap rounded-small bg-straw-bg px-2 py-1 text-[13px] text-straw-ink"
        >
          {issueText(issue)}
          {issue.nearest ? (
            <TextButton className="pl-1.5" onClick={() => setText(mended(text, issue))}>
              Did you mean “{issue.nearest}”?
            </TextButton>
          ) : null}
        </p>
      ) : null}
    </div>
  )
}

/** Ways to end what is typed, and the keys that choose one. */
function useCompletions(typed: string, onTake: (whole: string) => void) {
  const { listId } = useListView()
  const { data: piles } = useReadPilesQuery({ params: { listId }, query: { filter: '' } }, { skip: listId === '' })
  const { data: columns = [] } = useReadColumnsQuery({ params: { listId } }, { skip: listId === '' })
  const field = useRef<HTMLInputElement>(null)
  const [caret, setCaret] = useState<number | null>(null)
  const counts = (piles ?? {}) as Readonly<Record<string, Readonly<Record<string, number>>>>
  const all: readonly Completion[] =
    caret === null
      ? []
      : completionsOf(
          typed,
          caret,
          (name) => Object.keys(counts[name] ?? {}),
          columns.map((one) => one.key),
        )
  const close = () => setCaret(null)
  const options = useOptions<Completion>({
    all,
    onTake: ({ whole }) => {
      onTake(whole)
      field.current?.focus()
    },
    onClose: close,
  })
  const look = (place: number) => {
    setCaret(place)
    options.begin()
  }
  const leave = () => {
    close()
    options.begin()
  }
  return { field, options, close: leave, look }
}

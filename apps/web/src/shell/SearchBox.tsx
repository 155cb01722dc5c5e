import { CircleHelp } from 'lucide-react'
import { useEffect, useRef, useState } from 'react'
import { useReadColumnsQuery, useReadPilesQuery } from '../api'
import { Key, TextButton } from '../kit/Button'
import { type Completion, completionsOf } from './completions'
import { FilterHelp } from './FilterHelp'
import { issueText, mended } from './filterWords'
import { useListView } from './useListView'

const PAUSE = 250

/** Free words, facets and conditions, typed: `line:mobile country:GB oldershaw`. */
export function SearchBox() {
  const { text, setText, issues } = useListView()
  const [issue] = issues
  const [typed, setTyped] = useState(text)
  const [isHelping, setIsHelping] = useState(false)
  useEffect(() => setTyped(text), [text])
  useEffect(() => {
    if (typed === text) return
    const timer = window.setTimeout(() => setText(typed), PAUSE)
    return () => window.clearTimeout(timer)
  }, [typed, text, setText])
  const completing = useCompletions(typed, (whole) => setTyped(whole))
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
          role="combobox"
          aria-expanded={completing.all.length > 0}
          aria-controls="filter-completions"
          aria-activedescendant={completing.at === null ? undefined : `completion-${completing.at}`}
          onChange={(event) => {
            setTyped(event.target.value)
            completing.look(event.target.selectionStart ?? event.target.value.length)
          }}
          onBlur={() => completing.close()}
          onKeyDown={(event) => {
            if (completing.key(event.key)) event.preventDefault()
            else if (event.key === 'Enter') setText(typed)
            else if (event.key === 'Escape') event.currentTarget.blur()
          }}
          placeholder="line:mobile country:GB …"
          autoComplete="off"
          spellCheck={false}
          className="num min-h-7 w-64 rounded-small border border-edge bg-surface px-2 pr-8 text-[13px] placeholder:text-soft"
        />
        <span className="absolute right-1.5 top-1">
          <Key>/</Key>
        </span>
        <div
          id="filter-completions"
          role="listbox"
          aria-label="Ways to go on"
          className={`absolute left-0 top-8 z-40 min-w-40 rounded-small border border-edge bg-surface py-1 shadow-lg ${completing.all.length > 0 ? '' : 'hidden'}`}
        >
          {completing.all.map(({ text: shown, whole }, at) => (
            // biome-ignore lint/a11y/useKeyWithClickEvents: arrows and Enter work in the field itself
            <div
              key={whole}
              id={`completion-${at}`}
              role="option"
              tabIndex={-1}
              aria-selected={at === completing.at}
              onMouseDown={(event) => event.preventDefault()}
              onClick={() => completing.take(at)}
              className={`num cursor-pointer px-2 py-0.5 text-[13px] ${at === completing.at ? 'bg-lichen' : ''}`}
            >
              {shown}
            </div>
          ))}
        </div>
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
      {issue && completing.all.length === 0 ? (
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
  const [at, setAt] = useState<number | null>(null)
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
  const close = () => {
    setCaret(null)
    setAt(null)
  }
  const take = (index: number) => {
    const chosen = all[index]
    if (chosen) onTake(chosen.whole)
    close()
    field.current?.focus()
  }
  const key = (name: string): boolean => {
    if (all.length === 0) return false
    if (name === 'ArrowDown') setAt(at === null ? 0 : (at + 1) % all.length)
    else if (name === 'ArrowUp') setAt(at === null ? all.length - 1 : (at + all.length - 1) % all.length)
    else if (name === 'Enter' && at !== null) take(at)
    else if (name === 'Escape') close()
    else return false
    return true
  }
  const look = (place: number) => {
    setCaret(place)
    setAt(null)
  }
  return { field, all, at, key, take, close, look }
}

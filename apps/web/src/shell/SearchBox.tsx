import { useEffect, useState } from 'react'
import { Key, TextButton } from '../kit/Button'
import { useListView } from './useListView'

const PAUSE = 250

/** Free words and piles, typed: `line:mobile country:GB oldershaw`. */
export function SearchBox() {
  const { text, setText, issues } = useListView()
  const [issue] = issues
  const [typed, setTyped] = useState(text)
  useEffect(() => setTyped(text), [text])
  useEffect(() => {
    if (typed === text) return
    const timer = window.setTimeout(() => setText(typed), PAUSE)
    return () => window.clearTimeout(timer)
  }, [typed, text, setText])
  return (
    <div className="relative">
      <label htmlFor="list-filter" className="sr-only">
        Filter by name, company, number, e-mail or pile
      </label>
      <input
        id="list-filter"
        value={typed}
        onChange={(event) => setTyped(event.target.value)}
        onKeyDown={(event) => {
          if (event.key === 'Enter') setText(typed)
          if (event.key === 'Escape') event.currentTarget.blur()
        }}
        placeholder="line:mobile country:GB …"
        autoComplete="off"
        spellCheck={false}
        className="num min-h-7 w-64 rounded-small border border-edge bg-surface px-2 pr-8 text-[13px] placeholder:text-soft"
      />
      <span className="absolute right-1.5 top-1">
        <Key>/</Key>
      </span>
      {issue ? (
        <p
          role="status"
          className="absolute right-0 top-9 z-30 whitespace-nowrap rounded-small bg-straw-bg px-2 py-1 text-[13px] text-straw-ink"
        >
          There is no field “{issue.field}”; it is searched for as a word.
          {issue.nearest ? (
            <TextButton
              className="pl-1.5"
              onClick={() => setText(text.replace(new RegExp(`\\b${issue.field}:`, 'i'), `${issue.nearest}:`))}
            >
              Did you mean “{issue.nearest}:”?
            </TextButton>
          ) : null}
        </p>
      ) : null}
    </div>
  )
}

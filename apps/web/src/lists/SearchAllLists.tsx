import { Link, useSearchParams } from 'react-router'
import { Key } from '../kit/Button'
import { useTyped } from '../kit/useTyped'
import { Unanswered } from '../shell/Answer'
import { InHeader } from '../shell/InHeader'
import { useKeys } from '../shell/useKeys'
import { count, phone } from '../words/format'
import { useSearchListsQuery } from './todayApi'

const FIELD = 'all-lists-search'

/** What is looked for in all lists: it lives in the address. */
export function useSearchedText() {
  const [search, setSearch] = useSearchParams()
  return {
    text: search.get('q') ?? '',
    setText: (text: string) =>
      setSearch(
        (before) => {
          const next = new URLSearchParams(before)
          if (text.trim() === '') next.delete('q')
          else next.set('q', text)
          return next
        },
        { replace: true },
      ),
  }
}

/** The field in the header that looks for a person, a number or an address in all lists. */
export function SearchAllLists() {
  const { text, setText } = useSearchedText()
  const [typed, setTyped] = useTyped(text, setText)
  useKeys({ '/': () => document.getElementById(FIELD)?.focus() })
  return (
    <InHeader place="list-search">
      <label htmlFor={FIELD} className="sr-only">
        Search all lists
      </label>
      <span className="relative">
        <input
          id={FIELD}
          value={typed}
          onChange={(event) => setTyped(event.target.value)}
          onKeyDown={(event) => {
            if (event.key === 'Escape') event.currentTarget.blur()
          }}
          placeholder="a person, number or address"
          autoComplete="off"
          spellCheck={false}
          className="min-h-7 w-64 rounded-small border border-edge bg-surface px-2 pr-8 text-[13px] placeholder:text-soft"
        />
        <span className="absolute right-1.5 top-1">
          <Key>/</Key>
        </span>
      </span>
    </InHeader>
  )
}

/** Who was found, by list; each list shows all of them. */
export function FoundInLists({ text }: { text: string }) {
  const asked = useSearchListsQuery({ query: { filter: text } })
  const { data: found, isFetching } = asked
  if (!found || asked.error) return <Unanswered of={[asked]} what="all lists" />
  if (found.length === 0)
    return (
      <p className="border-t border-line py-4 text-soft" aria-busy={isFetching}>
        Nobody in any list is found by “{text}”.
      </p>
    )
  return (
    <div aria-busy={isFetching}>
      {found.map(({ listId, listName, contacts, total, isCapped }) => (
        <section key={listId} aria-label={listName} className="border-t border-line py-3">
          <div className="flex items-baseline justify-between gap-4 pb-1">
            <h2 className="text-[16px]">{listName}</h2>
            <Link
              to={`/lists/${listId}/tidy?q=${encodeURIComponent(text)}`}
              className="text-slate underline underline-offset-2"
            >
              {isCapped ? `more than ${count(total)}` : `all ${count(total)}`}
            </Link>
          </div>
          <ul>
            {contacts.map((one) => (
              <li key={one.id} className="grid grid-cols-[1.2fr_1.2fr_1fr_1.4fr] gap-3 py-0.5">
                <Link
                  to={`/lists/${listId}/tidy?q=${encodeURIComponent(text)}&contact=${one.id}`}
                  className="truncate font-semibold hover:underline"
                >
                  {one.fullName || one.company || 'no name'}
                </Link>
                <span className="truncate text-soft">{one.company}</span>
                <span className="num truncate">{one.number ? phone(one.number) : ''}</span>
                <span className="truncate text-soft">{one.email ?? ''}</span>
              </li>
            ))}
          </ul>
        </section>
      ))}
    </div>
  )
}

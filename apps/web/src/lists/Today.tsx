import type { Todo } from '@upper-field/contract'
import { useState } from 'react'
import { Link } from 'react-router'
import { TextButton } from '../kit/Button'
import { Answer, Refused } from '../shell/Answer'
import { useMakeCalendarMutation, useReadTodayQuery, useRemoveCalendarMutation } from './todayApi'
import { todoText } from './todoText'

const LOOK: Readonly<Record<Todo['pressure'], { readonly dot: string; readonly text: string; readonly says: string }>> =
  {
    now: { dot: 'var(--beet)', text: 'text-beet', says: 'pressing: ' },
    soon: { dot: 'var(--straw)', text: 'text-straw-ink', says: 'soon: ' },
    quiet: { dot: 'var(--contour)', text: '', says: '' },
  }
/** Days pass, and large audiences are counted behind the page: it is read anew so often, in milliseconds. */
const AGAIN = 30_000
/** More than these nobody does in a day; the rest is told by its number. */
const SHOWN = 12

/** What wants doing today over all lists: each opens its place, and is gone when it is done. */
export function Today() {
  const today = useReadTodayQuery({}, { pollingInterval: AGAIN })
  const todos = today.data
  const [showsAll, setShowsAll] = useState(false)
  const shown = showsAll ? todos : todos?.slice(0, SHOWN)
  return (
    <aside
      aria-label="To do today"
      className="h-full w-[380px] shrink-0 overflow-y-auto border-l border-line bg-surface px-5 py-5"
    >
      <h2 className="text-[18px]">To do today</h2>
      <p className="pb-2 text-[13px] text-soft">
        {todos?.length === 0 ? 'nothing wants doing' : 'most pressing first'}
      </p>
      <Answer of={{ ...today, data: shown }} what="what wants doing">
        {(all) => (
          <ul>
            {all.map((todo) => (
              <Line key={`${todo.kind} ${todo.listId} ${todo.audienceId} ${todo.name}`} todo={todo} />
            ))}
          </ul>
        )}
      </Answer>
      {todos && todos.length > SHOWN && !showsAll ? (
        <TextButton className="pt-2" onClick={() => setShowsAll(true)}>
          Show {todos.length - SHOWN} more
        </TextButton>
      ) : null}
      <Calendar />
    </aside>
  )
}

function Line({ todo }: { todo: Todo }) {
  const { title, about, act, to } = todoText(todo)
  const look = LOOK[todo.pressure]
  return (
    <li className="flex gap-2.5 border-t border-line py-2">
      <svg aria-hidden="true" width="9" height="9" className="mt-1.5 shrink-0">
        <circle cx="4.5" cy="4.5" r="4" fill={look.dot} />
      </svg>
      <div className="min-w-0">
        <p className={`font-semibold ${look.text}`}>
          <span className="sr-only">{look.says}</span>
          {title}
        </p>
        <p className="text-[13px] text-soft">{about}</p>
        <Link to={to} className="text-slate underline underline-offset-2">
          {act}
        </Link>
      </div>
    </li>
  )
}

/** Dates of audiences in the operator's own calendar, by an address that nobody else knows. */
function Calendar() {
  const [make, making] = useMakeCalendarMutation()
  const [remove, removing] = useRemoveCalendarMutation()
  const address = removing.isSuccess ? undefined : making.data?.address
  return (
    <section aria-label="Reminders" className="mt-4 border-t border-line pt-3 text-[13px]">
      {address ? (
        <>
          <p>Subscribe to this address in your calendar. Whoever has it sees names of audiences, and nobody in them.</p>
          <input
            aria-label="Address of the calendar"
            readOnly
            value={address}
            onFocus={(event) => event.currentTarget.select()}
            className="num mt-1 w-full rounded-small border border-edge bg-surface px-2 py-1"
          />
          <TextButton className="pt-1" onClick={() => void remove({})}>
            End this address
          </TextButton>
        </>
      ) : (
        <TextButton onClick={() => void make({})}>Dates of audiences in my calendar</TextButton>
      )}
      <Refused by={[removing, making]} />
    </section>
  )
}

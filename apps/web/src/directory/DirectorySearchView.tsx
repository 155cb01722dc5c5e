import type { DirectoryRecord, DirectorySearch, List } from '@upper-field/contract'
import { useState } from 'react'
import { Link, useOutletContext, useParams } from 'react-router'
import { useReadJobsQuery } from '../api'
import { useServiceNames } from '../connections/useConnected'
import { TextButton } from '../kit/Button'
import { lastRead, Unanswered } from '../shell/Answer'
import { JobLine } from '../shell/JobStrip'
import { count, money } from '../words/format'
import { useReadDirectoryRecordsQuery, useReadDirectorySearchQuery } from './directoryApi'
import { BECAME, standsAt } from './directoryText'

type State = DirectoryRecord['state']
const STATES = Object.keys(BECAME) as State[]

/** One search of a directory: how far it is, what it cost, and what became of every business. */
export function DirectorySearchView() {
  const list = useOutletContext<List>()
  const { searchId = '' } = useParams()
  const asked = useReadDirectorySearchQuery({ params: { searchId } })
  const search = lastRead(asked)
  const { data: jobs = [] } = useReadJobsQuery({ params: { listId: list.id } })
  const [state, setState] = useState<State>('taken')
  const nameOf = useServiceNames()
  if (!search) return <Unanswered of={[asked]} what="what was fetched" />
  const job = jobs.find(({ id }) => id === search.jobId)
  return (
    <div className="flex h-full min-h-0">
      <aside
        aria-label="What became of them"
        className="h-full w-[300px] shrink-0 overflow-y-auto border-r border-line"
      >
        <Link
          to={`/lists/${list.id}/bring/directory`}
          className="block px-4 pt-3 text-[13px] text-slate underline underline-offset-2"
        >
          All that was fetched
        </Link>
        <div className="px-4 pt-2">
          <h1 className="text-[17px]">{search.name}</h1>
          <p className="text-[13px] text-soft">
            {nameOf(search.provider)}: {search.trade.name}, {search.place.name}
          </p>
          <p className="pt-2">
            <span className="num block text-[24px] font-bold leading-8">{money(search.spent)}</span>
            <span className="text-[13px] text-soft">
              of at most {money(search.budget)} · {standsAt(search, job)}
            </span>
          </p>
          {job && job.state !== 'done' ? (
            <div className="pt-2">
              <JobLine job={job} />
            </div>
          ) : null}
        </div>
        <ul className="flex flex-col px-2 py-3">
          {STATES.map((one) => (
            <li key={one}>
              <StateLine state={one} n={search.became[one] ?? 0} isOpen={one === state} onOpen={setState} />
            </li>
          ))}
          <li className="flex justify-between gap-2 px-2 py-1 text-soft">
            <span>left out by the directory as known, for nothing</span>
            <span className="num">{count(search.leftOut)}</span>
          </li>
        </ul>
        <Onward search={search} />
      </aside>
      <main className="min-w-0 flex-1 overflow-y-auto px-5 py-3">
        <h2 className="pb-2">
          {count(search.became[state] ?? 0)} {BECAME[state]}
        </h2>
        <Records key={`${state} ${search.pages}`} searchId={search.id} state={state} />
      </main>
    </div>
  )
}

function StateLine(props: { state: State; n: number; isOpen: boolean; onOpen: (state: State) => void }) {
  const { state, n, isOpen, onOpen } = props
  return (
    <button
      type="button"
      aria-pressed={isOpen}
      disabled={n === 0}
      onClick={() => onOpen(state)}
      className={`flex w-full justify-between gap-2 rounded-small px-2 py-1 text-left ${isOpen ? 'bg-lichen font-semibold' : 'enabled:hover:bg-lichen'} disabled:text-soft`}
    >
      <span>{BECAME[state]}</span>
      <span className="num">{count(n)}</span>
    </button>
  )
}

function Onward({ search }: { search: DirectorySearch }) {
  if (search.batchId === null) return null
  return (
    <p className="border-t border-line px-4 py-3">
      They are a batch of the list.{' '}
      <Link to={`/lists/${search.listId}/tidy`} className="text-slate underline underline-offset-2">
        Tidy
      </Link>
    </p>
  )
}

const COLUMNS: readonly (readonly [title: string, of: (one: DirectoryRecord) => string])[] = [
  ['Business', ({ name }) => name],
  ['Telephone', ({ number }) => number],
  ['E-mail', ({ email }) => email],
  ['Address', ({ address, city }) => [address, city].filter(Boolean).join(', ')],
  ['Head office', ({ headOffice }) => headOffice],
]

/** Businesses of one kind, a part at a time. */
function Records({ searchId, state }: { searchId: string; state: State }) {
  const [after, setAfter] = useState([0])
  const asked = useReadDirectoryRecordsQuery({
    params: { searchId },
    query: { state, after: after.at(-1) ?? 0 },
  })
  const data = lastRead(asked)
  if (!data) return <Unanswered of={[asked]} what="the businesses" />
  if (data.records.length === 0) return <p className="text-soft">None.</p>
  const { next } = data
  return (
    <>
      <table className="w-full">
        <thead className="text-left text-[13px] text-soft">
          <tr className="border-b border-edge">
            {COLUMNS.map(([title]) => (
              <th key={title} className="py-1 pr-3">
                {title}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {data.records.map((one) => (
            <tr key={one.record} className="border-b border-line align-top">
              {COLUMNS.map(([title, of]) => (
                <td key={title} className={`py-1.5 pr-3 ${title === 'Telephone' ? 'num whitespace-nowrap' : ''}`}>
                  {of(one)}
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
      <div className="flex gap-4 pt-2">
        {after.length > 1 ? <TextButton onClick={() => setAfter(after.slice(0, -1))}>Those before</TextButton> : null}
        {next !== null ? <TextButton onClick={() => setAfter([...after, next])}>More of them</TextButton> : null}
      </div>
    </>
  )
}

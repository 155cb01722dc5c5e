import type { ListBeside } from '@upper-field/contract'
import type { ReactNode } from 'react'
import { Link } from 'react-router'
import { useReadListsBesideQuery } from '../api'
import { Empty } from '../kit/Notice'
import { ReadState } from '../shell/Answer'
import { BenchTitle } from '../shell/Bench'
import { useListView } from '../shell/useListView'
import { count } from '../words/format'

/** This list beside each other one: who is in both, only here, only there. Each count opens whom it counts. */
export function OtherLists() {
  const { listId } = useListView()
  const asked = useReadListsBesideQuery({ params: { listId } })
  const { data: lists } = asked
  return (
    <div className="flex min-h-0 flex-1 flex-col overflow-y-auto px-5 pb-3">
      <BenchTitle title="Other lists">who is in this one too, by e-mail, or by number and family name</BenchTitle>
      <ReadState of={asked} what="the other lists" />
      {lists?.length === 0 ? (
        <Empty title="There is no other list">
          <p className="text-soft">Once there is one, it is compared with this one here.</p>
        </Empty>
      ) : null}
      {lists && lists.length > 0 ? (
        <table className="w-full" aria-label="Other lists">
          <thead className="text-left text-[13px] text-soft">
            <tr className="border-b border-edge">
              <th className="py-1 pl-2">List</th>
              <th className="text-right">Only here</th>
              <th className="text-right">In both, here</th>
              <th className="text-right">In both, there</th>
              <th className="pr-2 text-right">Only there</th>
            </tr>
          </thead>
          <tbody>
            {lists.map((list) => (
              <Row key={list.listId} list={list} here={listId} />
            ))}
          </tbody>
        </table>
      ) : null}
      {lists && lists.length > 0 ? (
        <p className="pt-2 text-[13px] text-soft">
          One person may be several contacts in one list and a single one in the other: those in both are counted on
          either side.
        </p>
      ) : null}
    </div>
  )
}

function Row({ list, here }: { list: ListBeside; here: string }) {
  const open = (inList: string, filter: string) => `/lists/${inList}/pair?show=contacts&q=${encodeURIComponent(filter)}`
  return (
    <tr className="border-b border-line">
      <td className="max-w-0 truncate py-1.5 pl-2 font-semibold">{list.name}</td>
      <Count n={list.onlyHere} to={open(here, `notin:${list.listId}`)} />
      <Count n={list.bothHere} to={open(here, `in:${list.listId}`)} />
      <Count n={list.bothThere} to={open(list.listId, `in:${here}`)} />
      <Count n={list.onlyThere} to={open(list.listId, `notin:${here}`)} />
    </tr>
  )
}

const Count = ({ n, to }: { n: number; to: string }): ReactNode => (
  <td className="num w-32 py-1.5 pr-2 text-right">
    {n === 0 ? (
      <span className="text-soft">0</span>
    ) : (
      <Link to={to} className="text-slate underline">
        {count(n)}
      </Link>
    )}
  </td>
)

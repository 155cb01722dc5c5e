import type { SpendLine } from '@upper-field/contract'
import { useMemo } from 'react'
import { Link } from 'react-router'
import { useReadSpendQuery } from '../api'
import { Empty } from '../kit/Notice'
import { ReadState } from '../shell/Answer'
import { count, date, money } from '../words/format'
import { ProviderLimits } from './ProviderLimits'
import { SpendMonthPanel } from './SpendMonthPanel'
import { Statements } from './Statements'
import { csvOf, lastDays, sumsOf } from './spendLines'
import { UsableCosts } from './UsableCosts'

const DAYS = 30

/** What this month has cost and may cost, day by day, and every charge summed by service, list and purpose. */
export function SpendView() {
  const asked = useReadSpendQuery({}, { refetchOnMountOrArgChange: true })
  const { data } = asked
  return (
    <main className="mx-auto h-full max-w-5xl overflow-y-auto px-6 py-6">
      <h1 className="pb-4">Spend</h1>
      <div className="grid grid-cols-[320px_minmax(0,1fr)] gap-8 pb-6">
        <SpendMonthPanel />
        {data && data.length > 0 ? <Days lines={data} /> : null}
      </div>
      <ReadState of={asked} what="the charges" />
      {data?.length === 0 ? (
        <Empty title="Nothing was charged yet">
          <p>
            Line checks and fills say what they cost before they start. Every charge then stands here, with its list and
            its reason.
          </p>
        </Empty>
      ) : null}
      <ProviderLimits />
      {data && data.length > 0 ? <UsableCosts /> : null}
      {data && data.length > 0 ? <Statements /> : null}
      {data && data.length > 0 ? <Sums lines={data} /> : null}
    </main>
  )
}

function Days({ lines }: { lines: readonly SpendLine[] }) {
  const days = useMemo(() => lastDays(lines, new Date(), DAYS), [lines])
  const most = Math.max(1, ...days.map(({ amount }) => amount))
  const [first, last] = [days[0], days.at(-1)]
  return (
    <section aria-label={`The last ${DAYS} days`}>
      <h2 className="pb-2">The last {DAYS} days</h2>
      <ol className="flex h-24 items-end gap-1 border-b border-edge">
        {days.map(({ day, amount }) => (
          <li
            key={day}
            title={`${date(day)}: ${money(amount)}`}
            className="flex-1 bg-moss"
            style={{ height: amount === 0 ? 0 : `${Math.max(3, (100 * amount) / most)}%` }}
          >
            <span className="sr-only">
              {date(day)}: {money(amount)}
            </span>
          </li>
        ))}
      </ol>
      <p className="flex justify-between pt-1 text-[13px] text-soft">
        <span>{first ? date(first.day) : ''}</span>
        <span>dearest day {money(most)}</span>
        <span>{last ? date(last.day) : ''}</span>
      </p>
    </section>
  )
}

function Sums({ lines }: { lines: readonly SpendLine[] }) {
  const sums = useMemo(() => sumsOf(lines), [lines])
  const total = sums.reduce((sum, { amount }) => sum + amount, 0)
  return (
    <>
      <div className="flex items-baseline justify-between pb-1">
        <h2>All charges</h2>
        <a
          className="text-slate underline underline-offset-2"
          href={`data:text/csv;charset=utf-8,${encodeURIComponent(csvOf(lines))}`}
          download="upper-field-spend.csv"
        >
          Save day by day as CSV
        </a>
      </div>
      <table className="w-full">
        <thead className="text-left text-[13px] text-soft">
          <tr className="border-b border-edge">
            <th className="py-1">Service</th>
            <th>List</th>
            <th>For</th>
            <th className="text-right">Charges</th>
            <th className="text-right">Sum</th>
          </tr>
        </thead>
        <tbody>
          {sums.map((line) => (
            <tr key={line.provider + line.listId + line.reason} className="border-b border-line">
              <td className="py-2 font-semibold">{line.name}</td>
              <td>
                {line.listId === null ? (
                  <span className="text-soft">no list</span>
                ) : (
                  <Link className="text-slate underline" to={`/lists/${line.listId}`}>
                    {line.list}
                  </Link>
                )}
              </td>
              <td>{line.reason}</td>
              <td className="num text-right">{count(line.charges)}</td>
              <td className="num text-right">{money(line.amount)}</td>
            </tr>
          ))}
        </tbody>
        <tfoot>
          <tr className="font-semibold">
            <td colSpan={4} className="py-2">
              Together
            </td>
            <td className="num text-right">{money(total)}</td>
          </tr>
        </tfoot>
      </table>
    </>
  )
}

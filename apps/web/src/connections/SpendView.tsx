import { Link } from 'react-router'
import { problemText, useReadSpendQuery } from '../api'
import { Empty, Loading, Notice } from '../kit/Notice'
import { count, money } from '../words/format'

/** Every charge, summed by list and service. */
export function SpendView() {
  const { data, error } = useReadSpendQuery({}, { refetchOnMountOrArgChange: true })
  const total = data?.reduce((sum, { amount }) => sum + amount, 0) ?? 0
  return (
    <main className="mx-auto h-full max-w-4xl overflow-y-auto px-6 py-6">
      <h1 className="pb-4">Spend</h1>
      {error ? <Notice tone="bad">{problemText(error)}</Notice> : null}
      {data ? null : <Loading what="the charges" />}
      {data?.length === 0 ? (
        <Empty title="Nothing was charged yet">
          <p>
            Line checks and fills say what they cost before they start. Every charge then stands here, with its list and
            its reason.
          </p>
        </Empty>
      ) : null}
      {data && data.length > 0 ? (
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
            {data.map((line) => (
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
      ) : null}
    </main>
  )
}

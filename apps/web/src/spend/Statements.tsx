import type { ServiceStatement } from '@upper-field/contract'
import { useReadStatementsQuery } from '../api'
import { TextButton } from '../kit/Button'
import { useMayChange } from '../people/useRole'
import { lastRead, Unanswered } from '../shell/Answer'
import { count, date, money } from '../words/format'
import { JOB_PROBLEM } from '../words/jobs'
import { differencesIn, sumOfStatement } from './spendLines'

/** What the services say they have charged this month, beside our own books, with every difference. */
export function Statements() {
  return useMayChange() ? <Compared /> : null
}

function Compared() {
  const asked = useReadStatementsQuery({}, { refetchOnMountOrArgChange: true })
  const { isFetching, refetch } = asked
  const data = lastRead(asked)
  if (!data) return <Unanswered of={[asked]} what="the statements of the services" />
  if (data.length === 0) return null
  return (
    <section aria-label="Statements of the services" className="pb-6">
      <div className="flex items-baseline justify-between pb-1">
        <h2>This month by their books and ours</h2>
        <TextButton disabled={isFetching} onClick={() => void refetch()}>
          Ask them again
        </TextButton>
      </div>
      <table className="w-full">
        <thead className="text-left text-[13px] text-soft">
          <tr className="border-b border-edge">
            <th className="py-1">Service</th>
            <th className="text-right">Their charges</th>
            <th className="text-right">Ours</th>
            <th className="text-right">Their sum</th>
            <th className="text-right">Ours</th>
            <th className="pl-6">Difference</th>
          </tr>
        </thead>
        <tbody>
          {data.map((statement) => (
            <StatementRow key={statement.provider} statement={statement} />
          ))}
        </tbody>
      </table>
    </section>
  )
}

function StatementRow({ statement }: { statement: ServiceStatement }) {
  const { name, problem } = statement
  if (problem !== null)
    return (
      <tr className="border-b border-line">
        <td className="py-1 font-semibold">{name}</td>
        <td colSpan={5} className="text-beet">
          {JOB_PROBLEM[problem] ?? 'It gave no statement.'}
        </td>
      </tr>
    )
  const { ours, theirs } = sumOfStatement(statement)
  const differences = differencesIn(statement)
  return (
    <tr className="border-b border-line">
      <td className="py-1 font-semibold">{name}</td>
      <td className="num text-right">{count(theirs.charges)}</td>
      <td className="num text-right">{count(ours.charges)}</td>
      <td className="num text-right">{money(theirs.amount)}</td>
      <td className="num text-right">{money(ours.amount)}</td>
      <td className="pl-6">
        {differences.length === 0 ? <span className="text-soft">none</span> : null}
        {differences.map(({ day, amount }) => (
          <span key={day} className="block text-beet">
            {date(day)}:{' '}
            {amount > 0
              ? `${money(amount)} more by theirs`
              : amount < 0
                ? `${money(-amount)} more by ours`
                : 'another number of charges'}
          </span>
        ))}
      </td>
    </tr>
  )
}

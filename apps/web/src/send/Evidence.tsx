import type { AudienceDetail } from '@upper-field/contract'
import { count, money, percent } from '../words/format'
import { forecastText } from './audienceText'

/** What was foretold against what came back, and what each source was worth. */
export function Evidence({ audience }: { audience: AudienceDetail }) {
  const told = audience.deliveries.find(({ matched, forecast }) => matched !== null && forecast !== null)
  if (!told?.forecast || told.matched === null) return null
  const { low, high, people } = told.forecast
  const isWithin = told.matched >= low && told.matched <= high
  return (
    <section aria-label="Match evidence">
      <h3 className="pb-1 text-[14px]">What came back</h3>
      <p>
        {forecastText({ low, high })} were expected, <strong>{count(told.matched)}</strong> came:{' '}
        {percent(people === 0 ? 0 : told.matched / people)} of {count(people)}
        {isWithin ? '.' : told.matched < low ? ', fewer than expected.' : ', more than expected.'}
      </p>
      {audience.sources.length > 0 ? (
        <table className="mt-2 w-full text-[13px]">
          <thead className="text-left text-soft">
            <tr className="border-b border-edge">
              <th className="font-normal">Source</th>
              <th className="text-right font-normal">People</th>
              <th className="text-right font-normal">Matched by it</th>
              <th className="text-right font-normal">Each cost</th>
            </tr>
          </thead>
          <tbody>
            {audience.sources.map(({ kind, name, people: n, matched, cost }) => (
              <tr key={`${kind} ${name}`} className="border-b border-line">
                <td className="max-w-28 truncate py-1" title={name}>
                  {name}
                </td>
                <td className="num text-right">{count(n)}</td>
                <td className="num text-right">{count(matched)}</td>
                <td className="num text-right">
                  {cost === null || matched <= 0 ? '—' : money(Math.round(cost / matched))}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      ) : null}
      <p className="pt-1 text-[13px] text-soft">
        Networks tell one number for all. What each source brought is inferred from its identifiers.
      </p>
    </section>
  )
}

import { useMemo } from 'react'
import { useReadUsableQuery } from '../api'
import { count, date, money } from '../words/format'
import { eachByDay } from './spendLines'

/** What each usable value has cost, day by day and service by service. */
export function UsableCosts() {
  const { data: lines = [] } = useReadUsableQuery({}, { refetchOnMountOrArgChange: true })
  const { days, services } = useMemo(() => eachByDay(lines), [lines])
  if (days.length === 0) return null
  return (
    <section aria-label="Cost of each usable value" className="pb-6">
      <h2 className="pb-1">Cost of each usable value</h2>
      <div className="overflow-x-auto">
        <table className="w-full">
          <thead className="text-left text-[13px] text-soft">
            <tr className="border-b border-edge">
              <th className="py-1">Day</th>
              <th className="text-right">Usable</th>
              <th className="text-right">All services</th>
              {services.map((name) => (
                <th key={name} className="pl-3 text-right">
                  {name}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {days.map(({ day, usable, each, byService }) => (
              <tr key={day} className="border-b border-line">
                <td className="py-1">{date(day)}</td>
                <td className="num text-right">{count(usable)}</td>
                <td className="num text-right font-semibold">{each === null ? '–' : money(each)}</td>
                {services.map((name) => (
                  <td key={name} className="num text-right">
                    {byService[name] == null ? <span className="text-soft">–</span> : money(byService[name])}
                  </td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      <p className="pt-1 text-[13px] text-soft">
        All that asking cost, checks included, for each value that was taken. A dash: nothing was found.
      </p>
    </section>
  )
}

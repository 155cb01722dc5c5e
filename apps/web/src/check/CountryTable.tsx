import { writeFilter } from '@upper-field/core/split'
import { useState } from 'react'
import { TextButton } from '../kit/Button'
import { useListView } from '../shell/useListView'
import { usePiles } from '../shell/usePiles'
import { count, countryName } from '../words/format'
import { narrowed } from './CountField'
import { type LinesOfCountry, linesByCountry } from './countries'

const SHOWN = 12
const COLUMNS = [
  ['mobile', 'Mobile'],
  ['fixed', 'Fixed'],
  ['fixed-or-mobile', 'Fixed or mobile'],
] as const

/** Lines by country; where a plan does not tell fixed lines from mobiles, that is said. */
export function CountryTable() {
  const view = useListView()
  const [showsAll, setShowsAll] = useState(false)
  const { data, sign } = usePiles(view)
  const all = linesByCountry(data?.countries ?? {})
  const shown = showsAll ? all : all.slice(0, SHOWN)
  return (
    <>
      <table className="mb-2 w-full text-left">
        <thead className="text-[13px] text-soft">
          <tr className="border-b border-edge">
            <th className="py-1 font-normal">Country</th>
            {[...COLUMNS.map(([, title]) => title), 'In service', 'Out of service', 'Not checked'].map((title) => (
              <th key={title} className="pl-2 text-right font-normal">
                {title}
              </th>
            ))}
            <th className="pl-5 font-normal">Mobile or fixed</th>
          </tr>
        </thead>
        <tbody>
          {shown.map((one) => (
            <CountryRow key={one.country} lines={one} sign={sign} />
          ))}
        </tbody>
      </table>
      {all.length > SHOWN ? (
        <TextButton className="pb-3 text-[13px]" aria-expanded={showsAll} onClick={() => setShowsAll(!showsAll)}>
          {showsAll ? 'Fewer' : `${count(all.length - SHOWN)} more countries`}
        </TextButton>
      ) : null}
    </>
  )
}

function CountryRow({ lines, sign }: { lines: LinesOfCountry; sign: string }) {
  const { filter, setText } = useListView()
  const { country, byType, byStatus } = lines
  const counts = [
    ...COLUMNS.map(([type, title]) => ({ title, pile: 'line', value: type, n: byType[type] ?? 0 }) as const),
    ...(['in-service', 'out-of-service', 'not-checked'] as const).map(
      (status) => ({ title: status, pile: 'status', value: status, n: byStatus[status] ?? 0 }) as const,
    ),
  ]
  return (
    <tr className="border-b border-line">
      <th scope="row" className="py-1 font-normal">
        {countryName(country)}
      </th>
      {counts.map(({ title, pile, value, n }) => (
        <td key={title} className="num text-right text-[13px]">
          {n === 0 ? (
            <span className="px-1 text-soft">0</span>
          ) : (
            <button
              type="button"
              className="rounded px-1 hover:bg-lichen"
              aria-label={`${countryName(country)}, ${title}: ${count(n)}`}
              onClick={() => setText(writeFilter(narrowed(filter, { country, [pile]: value })))}
            >
              {sign}
              {count(n)}
            </button>
          )}
        </td>
      ))}
      <td className="pl-5 text-[13px] text-soft">
        {(byType['fixed-or-mobile'] ?? 0) > 0 ? 'only the register can tell' : 'the plan tells'}
      </td>
    </tr>
  )
}

import type { AnswerAges } from '@upper-field/contract'
import { writeFilter } from '@upper-field/core/split'
import { useReadAnswerAgesQuery, useReadConnectionsQuery } from '../api'
import { Answer } from '../shell/Answer'
import { useListView } from '../shell/useListView'
import { count, countryName } from '../words/format'
import { freshOf } from './ages'
import { narrowed } from './CountField'

const TITLES = ['Numbers', 'Not to be called', 'Answer in time', 'Answer too old', 'Never asked']

/** By country, what do-not-call registers have said; the chosen countries are those that are asked about. */
export function DoNotCallTable() {
  const { listId, filter } = useListView()
  const everywhere = writeFilter({ ...filter, piles: { ...filter.piles, country: [] } })
  const ages = useReadAnswerAgesQuery({ params: { listId }, query: { filter: everywhere, of: 'do-not-call' } })
  return (
    <Answer
      of={ages}
      what="what registers have said"
      none={<p className="pb-4 text-soft">Nobody here has a number.</p>}
    >
      {(all) => <CountryTable all={all} />}
    </Answer>
  )
}

function CountryTable({ all }: { all: readonly AnswerAges[] }) {
  const { data: connections = [] } = useReadConnectionsQuery({})
  const known = connections.find(({ role }) => role === 'do-not-call')?.countries ?? null
  const shown = all.filter(({ country, listed }) => known === null || known.includes(country) || listed > 0)
  const others = all.filter((one) => !shown.includes(one)).reduce((sum, { subjects }) => sum + subjects, 0)
  return (
    <>
      <table className="mb-2 w-full text-left">
        <thead className="text-[13px] text-soft">
          <tr className="border-b border-edge">
            <th className="py-1 font-normal">Country to ask about</th>
            {TITLES.map((title) => (
              <th key={title} className="pl-2 text-right font-normal">
                {title}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {shown.map((ages) => (
            <CountryRow key={ages.country} ages={ages} />
          ))}
        </tbody>
      </table>
      {others > 0 ? (
        <p className="pb-3 text-[13px] text-soft">
          No register is connected for the countries of {count(others)} more numbers: whether those people want calls is
          not known.
        </p>
      ) : null}
    </>
  )
}

function CountryRow({ ages }: { ages: AnswerAges }) {
  const { filter, setText, toggle } = useListView()
  const { country, subjects, listed, stale, byAge } = ages
  const name = countryName(country)
  const isChosen = filter.piles.country?.includes(country) ?? false
  return (
    <tr className={`border-b border-line ${isChosen ? 'bg-lichen' : ''}`}>
      <th scope="row" className="py-1 font-normal">
        <label className="flex items-center gap-2">
          <input type="checkbox" checked={isChosen} onChange={() => toggle('country', country)} />
          {name}
        </label>
      </th>
      <td className="num text-right text-[13px]">{count(subjects)}</td>
      <td className="num text-right text-[13px]">
        {listed > 0 ? (
          <button
            type="button"
            className="rounded px-1 text-beet hover:bg-lichen"
            aria-label={`${name}, not to be called: ${count(listed)}`}
            onClick={() => setText(writeFilter(narrowed(filter, { country, suppressed: 'calls' })))}
          >
            {count(listed)}
          </button>
        ) : (
          <span className="px-1 text-soft">0</span>
        )}
      </td>
      <td className="num text-right text-[13px]">{count(freshOf(ages))}</td>
      <td className={`num text-right text-[13px] ${stale > 0 ? 'font-semibold text-straw-ink' : 'text-soft'}`}>
        {count(stale)}
      </td>
      <td className="num text-right text-[13px]">{count(byAge.never ?? 0)}</td>
    </tr>
  )
}

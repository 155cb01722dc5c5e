import type { FillResult } from '@upper-field/contract'
import { useReadFillsQuery } from '../api'
import { useServiceNames } from '../connections/useConnected'
import { useListView } from '../shell/useListView'
import { count, money } from '../words/format'
import { waitText } from './waitText'

/** What each provider gave in the latest run, and what it was worth. */
export function ProviderTable() {
  const { listId } = useListView()
  const { data: runs = [] } = useReadFillsQuery({ params: { listId } })
  const named = useServiceNames()
  const [run] = runs
  if (!run) return null
  return (
    <table aria-label="Providers in the latest run" className="mt-4 w-full">
      <thead className="text-left text-[13px] text-soft">
        <tr className="border-b border-edge">
          <th className="py-1 font-normal">Provider</th>
          {['Asked', 'Found', 'Usable', 'Cost per usable', 'Only here', 'Median wait', 'Failures'].map((title) => (
            <th key={title} className="pl-2 text-right font-normal">
              {title}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {run.providers.map((one) => (
          <tr key={one.provider} className="border-b border-line">
            <th scope="row" className="py-1 text-left font-semibold">
              {named(one.provider)}
            </th>
            {figuresOf(one).map(([title, text]) => (
              <td key={title} className="num text-right">
                {text}
              </td>
            ))}
          </tr>
        ))}
      </tbody>
    </table>
  )
}

type Figures = FillResult['providers'][number]

const figuresOf = (one: Figures): readonly (readonly [string, string])[] => [
  ['asked', count(one.asked)],
  ['found', count(one.candidates)],
  ['usable', count(one.accepted)],
  ['each', one.accepted > 0 ? money(Math.round(one.cost / one.accepted)) : '–'],
  ['only', count(one.onlyHere)],
  ['wait', waitText(one.medianWait)],
  ['failures', count(one.failed)],
]

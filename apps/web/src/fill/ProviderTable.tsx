import type { FillResult } from '@upper-field/contract'
import { useState } from 'react'
import { useReadFillsQuery, useReadPilesQuery } from '../api'
import { useServiceNames } from '../connections/useConnected'
import { SelectField } from '../kit/Field'
import { useListView } from '../shell/useListView'
import { count, countryName, money } from '../words/format'
import { waitText } from './waitText'

/** What each provider gave in the latest run, and what it was worth. */
export function ProviderTable() {
  const { listId } = useListView()
  const [country, setCountry] = useState('')
  const { data: runs = [] } = useReadFillsQuery({ params: { listId }, query: country ? { country } : {} })
  const { data: piles } = useReadPilesQuery({ params: { listId }, query: { filter: '' } })
  const named = useServiceNames()
  const [run] = runs
  if (!run) return null
  const countries = Object.keys(piles?.country ?? {}).filter((code) => code !== 'none')
  return (
    <>
      <div className="flex items-center justify-between gap-3 pt-4">
        <h2 className="text-[15px]">What each gave in the latest run</h2>
        <div className="w-52">
          <SelectField
            label="Contacts of"
            hidesLabel
            value={country}
            onChange={(event) => setCountry(event.target.value)}
          >
            <option value="">Contacts of all countries</option>
            {countries.map((code) => (
              <option key={code} value={code}>
                {countryName(code)}
              </option>
            ))}
          </SelectField>
        </div>
      </div>
      <table aria-label="Providers in the latest run" className="mt-1 w-full">
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
    </>
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

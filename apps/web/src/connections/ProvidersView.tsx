import type { Connection } from '@upper-field/contract'
import { useState } from 'react'
import { Link } from 'react-router'
import { useReadConnectionsQuery } from '../api'
import { ButtonLink, TextButton } from '../kit/Button'
import { useIsOwner } from '../people/useRole'
import { ReadState } from '../shell/Answer'
import { count, date, money } from '../words/format'
import { ACCEPTS, GIVES, priceText } from '../words/services'
import { ConnectionDialog } from './ConnectionDialog'

/** Who can be asked, for what and for which price, and how it went. Keys are never shown again. */
export function ProvidersView() {
  const asked = useReadConnectionsQuery({}, { refetchOnMountOrArgChange: true })
  const { data } = asked
  const [changing, setChanging] = useState<Connection | null>(null)
  const isOwner = useIsOwner()
  return (
    <main className="mx-auto h-full max-w-6xl overflow-y-auto px-6 py-6">
      <div className="flex items-start justify-between gap-4 pb-4">
        <div>
          <h1 className="pb-1">Providers</h1>
          <p className="text-soft">
            Services that are asked for money. Keys are sealed where they are kept and never sent to a browser.
          </p>
        </div>
        {isOwner ? (
          <ButtonLink to="/providers/new" look="main" className="shrink-0">
            Add a service
          </ButtonLink>
        ) : null}
      </div>
      <ReadState of={asked} what="the connections" />
      {data?.length === 0 ? (
        <p className="border-y border-line py-4">
          No service is connected yet. Bringing in, tidying, pairing and splitting need none; checking lines and filling
          gaps begin with one.
        </p>
      ) : null}
      {data && data.length > 0 ? (
        <table className="w-full">
          <thead className="text-left text-[13px] text-soft">
            <tr className="border-b border-edge">
              <th className="py-1">Service</th>
              <th>Price</th>
              <th>Key</th>
              <th>Last answer</th>
              <th className="text-right">Failures, 30 days</th>
              <th className="text-right">This month</th>
              <th>
                <span className="sr-only">Change</span>
              </th>
            </tr>
          </thead>
          <tbody>
            {data.map((connection) => (
              <ConnectionRow
                key={connection.provider}
                connection={connection}
                onChange={isOwner ? () => setChanging(connection) : null}
              />
            ))}
          </tbody>
        </table>
      ) : null}
      {changing ? <ConnectionDialog connection={changing} onClose={() => setChanging(null)} /> : null}
    </main>
  )
}

function ConnectionRow({ connection, onChange }: { connection: Connection; onChange: (() => void) | null }) {
  const { provider, name, gives, accepts, hasKey, changedAt, lastAnswerAt, failures, spentThisMonth } = connection
  return (
    <tr className="border-b border-line align-top">
      <td className="max-w-[340px] py-2 pr-4">
        <Link to={`/providers/${provider}`} className="font-semibold text-slate underline underline-offset-2">
          {name}
        </Link>
        <div className="text-[13px]">{gives.map((one) => GIVES[one]).join(', ')}</div>
        <div className="text-[13px] text-soft">for {accepts.map((one) => ACCEPTS[one]).join(', or ')}</div>
      </td>
      <td className="py-2 pr-4">{priceText(connection)}</td>
      <td className="py-2 pr-4">
        {hasKey ? `set ${changedAt ? date(changedAt) : ''}` : <span className="text-straw-ink">missing</span>}
      </td>
      <td className="py-2 pr-4">{lastAnswerAt ? date(lastAnswerAt) : <span className="text-soft">not yet</span>}</td>
      <td className={`num py-2 text-right ${failures > 0 ? 'text-beet' : ''}`}>{count(failures)}</td>
      <td className="num py-2 text-right">{money(spentThisMonth)}</td>
      <td className="py-2 pl-4 text-right">
        {onChange ? (
          <TextButton onClick={onChange} aria-label={`Change key and address of ${name}`}>
            Key
          </TextButton>
        ) : null}
      </td>
    </tr>
  )
}

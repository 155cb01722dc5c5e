import type { Connection } from '@upper-field/contract'
import { useState } from 'react'
import { problemText, useChangeConnectionMutation, useReadConnectionsQuery, useReadMeQuery } from '../api'
import { Button, TextButton } from '../kit/Button'
import { Dialog } from '../kit/Dialog'
import { TextField } from '../kit/Field'
import { Loading, Notice } from '../kit/Notice'
import { date, money } from '../words/format'

/** Who can be asked, at which address, for which price. Keys are never shown again. */
export function ProvidersView() {
  const { data, error } = useReadConnectionsQuery({})
  const { data: me } = useReadMeQuery({})
  const [changing, setChanging] = useState<Connection | null>(null)
  return (
    <main className="mx-auto h-full max-w-5xl overflow-y-auto px-6 py-6">
      <h1 className="pb-1">Providers</h1>
      <p className="pb-4 text-soft">
        Services that are asked for money. Keys are sealed where they are kept and never sent to a browser.
      </p>
      {error ? <Notice tone="bad">{problemText(error)}</Notice> : null}
      {data ? null : <Loading what="the connections" />}
      {data?.length === 0 ? (
        <p className="border-y border-line py-4">
          No service is connected yet. Bringing in, tidying, pairing and splitting need none; checking lines and filling
          gaps begin with one.
        </p>
      ) : null}
      <table className={`w-full ${data?.length === 0 ? 'hidden' : ''}`}>
        <thead className="text-left text-[13px] text-soft">
          <tr className="border-b border-edge">
            <th className="py-1">Service</th>
            <th>What it does</th>
            <th>Price</th>
            <th>Address</th>
            <th>Key</th>
            <th>
              <span className="sr-only">Change</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {data?.map((connection) => (
            <tr key={connection.provider} className="border-b border-line">
              <td className="py-2 font-semibold">{connection.name}</td>
              <td>{connection.role === 'register' ? 'line register' : 'finds mobiles'}</td>
              <td>
                <span className="num">{money(connection.price)}</span> per {connection.pricePer}
              </td>
              <td className="num text-[13px]">
                {connection.baseUrl || <span className="font-text text-straw-ink">not set</span>}
              </td>
              <td>
                {connection.hasKey ? (
                  `set ${connection.changedAt ? date(connection.changedAt) : ''}`
                ) : (
                  <span className="text-straw-ink">missing</span>
                )}
              </td>
              <td className="text-right">
                {me?.role === 'owner' ? (
                  <TextButton onClick={() => setChanging(connection)} aria-label={`Change ${connection.name}`}>
                    Change
                  </TextButton>
                ) : null}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {changing ? <ConnectionDialog connection={changing} onClose={() => setChanging(null)} /> : null}
    </main>
  )
}

function ConnectionDialog({ connection, onClose }: { connection: Connection; onClose: () => void }) {
  const [baseUrl, setBaseUrl] = useState(connection.baseUrl)
  const [key, setKey] = useState('')
  const [change, { error, isLoading }] = useChangeConnectionMutation()
  const submit = async () => {
    const changed = await change({
      params: { provider: connection.provider },
      body: { baseUrl, ...(key ? { key } : {}) },
    })
    if (!changed.error) onClose()
  }
  return (
    <Dialog title={`Connection to ${connection.name}`} isOpen onClose={onClose}>
      <form
        className="flex flex-col gap-3"
        onSubmit={(event) => {
          event.preventDefault()
          void submit()
        }}
      >
        <TextField
          label="Address"
          type="url"
          required
          value={baseUrl}
          onChange={(event) => setBaseUrl(event.target.value)}
        />
        <TextField
          label="Key"
          type="password"
          autoComplete="off"
          value={key}
          onChange={(event) => setKey(event.target.value)}
          hint={connection.hasKey ? 'Leave empty to keep the key that is set.' : 'Given to you by the service.'}
        />
        {error ? <Notice tone="bad">{problemText(error)}</Notice> : null}
        <div className="flex justify-end gap-2">
          <Button onClick={onClose}>Cancel</Button>
          <Button look="main" type="submit" disabled={isLoading}>
            Keep
          </Button>
        </div>
      </form>
    </Dialog>
  )
}

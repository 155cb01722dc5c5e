import type { Connection } from '@upper-field/contract'
import { useState } from 'react'
import { problemText, useChangeConnectionMutation } from '../api'
import { Button } from '../kit/Button'
import { Dialog } from '../kit/Dialog'
import { TextField } from '../kit/Field'
import { Notice } from '../kit/Notice'

/** Where a service is, and the key to it. */
export function ConnectionDialog({ connection, onClose }: { connection: Connection; onClose: () => void }) {
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

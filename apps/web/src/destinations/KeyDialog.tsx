import type { DestinationDocument, DestinationKey } from '@upper-field/contract'
import { useState } from 'react'
import { problemText } from '../api'
import { Button } from '../kit/Button'
import { Dialog } from '../kit/Dialog'
import { TextField } from '../kit/Field'
import { Notice } from '../kit/Notice'
import { useKeepDestinationKeyMutation, useRemoveDestinationKeyMutation } from '../send/audienceApi'

interface KeyDialogProps {
  readonly destination: DestinationDocument
  readonly kept: DestinationKey | undefined
  readonly onClose: () => void
}

/** Where a network is called, and the key to it: without one, files alone are made for it. */
export function KeyDialog({ destination, kept, onClose }: KeyDialogProps) {
  const [address, setAddress] = useState(kept?.address ?? destination.network?.address ?? '')
  const [key, setKey] = useState('')
  const [keep, keeping] = useKeepDestinationKeyMutation()
  const [remove, removing] = useRemoveDestinationKeyMutation()
  const params = { destinationId: destination.id }
  const submit = async () => {
    const { error } = await keep({ params, body: { address, key } })
    if (!error) onClose()
  }
  const forget = async () => {
    const { error } = await remove({ params })
    if (!error) onClose()
  }
  const error = keeping.error ?? removing.error
  return (
    <Dialog title={`Key of ${destination.name}`} isOpen onClose={onClose}>
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
          value={address}
          onChange={(event) => setAddress(event.target.value)}
        />
        <TextField
          label="Key"
          type="password"
          autoComplete="off"
          required
          value={key}
          onChange={(event) => setKey(event.target.value)}
          hint={
            kept ? 'It takes the place of the one that is kept.' : 'Given to you by the network. It is kept sealed.'
          }
        />
        {error ? <Notice tone="bad">{problemText(error)}</Notice> : null}
        <div className="flex justify-end gap-2">
          {kept ? (
            <Button look="danger" onClick={() => void forget()}>
              Forget the key
            </Button>
          ) : null}
          <Button onClick={onClose}>Cancel</Button>
          <Button look="main" type="submit" disabled={keeping.isLoading}>
            Keep
          </Button>
        </div>
      </form>
    </Dialog>
  )
}

import { useState } from 'react'
import { problemText } from '../api'
import { Button } from '../kit/Button'
import { Dialog } from '../kit/Dialog'
import { TextField } from '../kit/Field'
import { Notice } from '../kit/Notice'

interface AddressAndKeyProps {
  readonly title: string
  /** The address it begins with. */
  readonly address: string
  /** What is said below the key. */
  readonly keyHint: string
  /** A key has to be given; else the one that is kept stays. */
  readonly needsKey: boolean
  readonly problem: unknown
  readonly isBusy: boolean
  readonly onKeep: (address: string, key: string) => void
  /** Null where there is nothing to forget. */
  readonly onForget: (() => void) | null
  readonly onClose: () => void
}

/** Where something outside is called, and the key to it. */
export function AddressAndKey(props: AddressAndKeyProps) {
  const { title, keyHint, needsKey, problem, isBusy, onKeep, onForget, onClose } = props
  const [address, setAddress] = useState(props.address)
  const [key, setKey] = useState('')
  return (
    <Dialog title={title} isOpen onClose={onClose}>
      <form
        className="flex flex-col gap-3"
        onSubmit={(event) => {
          event.preventDefault()
          onKeep(address, key)
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
          required={needsKey}
          value={key}
          onChange={(event) => setKey(event.target.value)}
          hint={keyHint}
        />
        {problem ? <Notice tone="bad">{problemText(problem)}</Notice> : null}
        <div className="flex justify-end gap-2">
          {onForget ? (
            <Button look="danger" onClick={onForget}>
              Forget the key
            </Button>
          ) : null}
          <Button onClick={onClose}>Cancel</Button>
          <Button look="main" type="submit" disabled={isBusy}>
            Keep
          </Button>
        </div>
      </form>
    </Dialog>
  )
}

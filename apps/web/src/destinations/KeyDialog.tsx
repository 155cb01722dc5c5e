import type { DestinationDocument, DestinationKey } from '@upper-field/contract'
import { AddressAndKey } from '../documents/AddressAndKey'
import { useKeepDestinationKeyMutation, useRemoveDestinationKeyMutation } from '../send/audienceApi'

interface KeyDialogProps {
  readonly destination: DestinationDocument
  readonly kept: DestinationKey | undefined
  readonly onClose: () => void
}

/** Where a network is called, and the key to it: without one, files alone are made for it. */
export function KeyDialog({ destination, kept, onClose }: KeyDialogProps) {
  const [keep, keeping] = useKeepDestinationKeyMutation()
  const [remove, removing] = useRemoveDestinationKeyMutation()
  const params = { destinationId: destination.id }
  const submit = async (address: string, key: string) => {
    const { error } = await keep({ params, body: { address, key } })
    if (!error) onClose()
  }
  const forget = async () => {
    const { error } = await remove({ params })
    if (!error) onClose()
  }
  return (
    <AddressAndKey
      title={`Key of ${destination.name}`}
      address={kept?.address ?? destination.network?.address ?? ''}
      keyHint={kept ? 'It takes the place of the one that is kept.' : 'Given to you by the network. It is kept sealed.'}
      needsKey
      problem={keeping.error ?? removing.error}
      isBusy={keeping.isLoading}
      onKeep={(address, key) => void submit(address, key)}
      onForget={kept ? () => void forget() : null}
      onClose={onClose}
    />
  )
}

import type { Connection } from '@upper-field/contract'
import { useChangeConnectionMutation } from '../api'
import { AddressAndKey } from '../documents/AddressAndKey'

/** Where a service is, and the key to it. */
export function ConnectionDialog({ connection, onClose }: { connection: Connection; onClose: () => void }) {
  const [change, { error, isLoading }] = useChangeConnectionMutation()
  const submit = async (baseUrl: string, key: string) => {
    const changed = await change({
      params: { provider: connection.provider },
      body: { baseUrl, ...(key ? { key } : {}) },
    })
    if (!changed.error) onClose()
  }
  return (
    <AddressAndKey
      title={`Connection to ${connection.name}`}
      address={connection.baseUrl}
      keyHint={connection.hasKey ? 'Leave empty to keep the key that is set.' : 'Given to you by the service.'}
      needsKey={false}
      problem={error}
      isBusy={isLoading}
      onKeep={(address, key) => void submit(address, key)}
      onForget={null}
      onClose={onClose}
    />
  )
}

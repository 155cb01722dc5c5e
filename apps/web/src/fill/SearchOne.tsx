import type { ContactLine } from '@upper-field/contract'
import { problemText, useEstimateFillQuery, useStartFillMutation } from '../api'
import { useProviders } from '../connections/useConnected'
import { TextButton } from '../kit/Button'
import { useMayChange } from '../people/useRole'
import { useListView } from '../shell/useListView'
import { money } from '../words/format'

/** Searches for a mobile of one contact alone, for a price that is said first. */
export function SearchOne({ contact }: { contact: ContactLine }) {
  const mayChange = useMayChange()
  const order = (useProviders() ?? []).map(({ provider }) => provider)
  const isFound = contact.sureness === 'mobile-in-service' || contact.sureness === 'mobile-not-checked'
  if (order.length === 0 || isFound || contact.joinedInto !== null || !mayChange) return null
  return <Search contactId={contact.id} order={order} />
}

function Search({ contactId, order }: { contactId: number; order: readonly string[] }) {
  const { listId } = useListView()
  const { currentData: estimate } = useEstimateFillQuery({
    params: { listId },
    query: { order: order.join(','), contactId },
  })
  const [start, { data: job, error, isLoading }] = useStartFillMutation()
  if (!estimate || estimate.wanting === 0 || estimate.most === 0) return null
  const body = { order: [...order], checksLines: true, budget: estimate.most, contactId }
  return (
    <p className="text-[13px]">
      {job ? (
        <span className="text-soft">Providers are being asked about this contact.</span>
      ) : (
        <TextButton disabled={isLoading} onClick={() => void start({ params: { listId }, body })}>
          Search for a mobile · at most {money(estimate.most)}
        </TextButton>
      )}
      {error ? <span className="block text-beet">{problemText(error)}</span> : null}
    </p>
  )
}

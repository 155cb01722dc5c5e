import type { ContactLine } from '@upper-field/contract'
import { problemText, usePlaceByHandMutation, useReadLaneRulesQuery } from '../api'
import { useMayChange } from '../people/useRole'
import { useListView } from '../shell/useListView'
import { shownLanes } from './laneList'

/** Moves one contact to a lane by hand, or lets it go where the rules put it. */
export function LaneChoice({ contact }: { contact: ContactLine }) {
  const { listId } = useListView()
  const mayChange = useMayChange()
  const { data: rules } = useReadLaneRulesQuery({ params: { listId } })
  const [place, placing] = usePlaceByHandMutation()
  if (!mayChange || !rules) return null
  const move = (lane: string | null) => void place({ params: { contactId: contact.id }, body: { lane } })
  return (
    <>
      <select
        aria-label="Move to a lane by hand"
        value=""
        disabled={placing.isLoading}
        onChange={(event) => move(event.target.value === 'rules' ? null : event.target.value)}
        className="ml-2 min-h-7 rounded-small border border-edge bg-surface px-1 text-[13px]"
      >
        <option value="" disabled>
          move …
        </option>
        {shownLanes(rules)
          .filter(({ lane }) => lane !== contact.lane)
          .map(({ lane, name }) => (
            <option key={lane} value={lane}>
              to {name}
            </option>
          ))}
        {contact.laneReason === 'by-hand' ? <option value="rules">where the rules put it</option> : null}
      </select>
      {placing.error ? <span className="text-beet">{problemText(placing.error)}</span> : null}
    </>
  )
}

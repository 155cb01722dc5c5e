import { useReadDecidedQuery, useTakeDecisionBackMutation } from '../api'
import { TextButton } from '../kit/Button'
import { useMayChange } from '../people/useRole'
import { Refused } from '../shell/Answer'
import { useKeys } from '../shell/useKeys'
import { useLatest } from '../shell/useLatest'
import { useListView } from '../shell/useListView'
import { plural, time } from '../words/format'

/** What people decided last, each with a way back. */
export function Decisions({ listId }: { listId: string }) {
  const { limit, more } = useLatest(20)
  const { data: decided = [] } = useReadDecidedQuery({ params: { listId }, query: { limit } })
  const showMore = more(decided.length)
  const view = useListView()
  const [takeBack, takingBack] = useTakeDecisionBackMutation()
  const [last] = decided
  const mayChange = useMayChange() && !takingBack.isLoading
  useKeys({
    z: () => {
      if (last && mayChange && view.contactId === null) void takeBack({ params: { decisionId: last.id } })
    },
  })
  if (decided.length === 0) return null
  return (
    <section aria-label="Decided last" className="pt-4">
      <h3>Decided last</h3>
      <Refused by={[takingBack]} />
      <ul>
        {decided.map(({ id, decision, pairs, who, at }) => (
          <li key={id} className="flex items-baseline justify-between gap-2 border-t border-line py-1.5">
            <span>
              {plural(pairs, 'pair')} {decision === 'join' ? 'joined' : 'kept apart'}
              <span className="block text-[12.5px] text-soft">
                {who}, {time(at)}
              </span>
            </span>
            <TextButton disabled={!mayChange} onClick={() => void takeBack({ params: { decisionId: id } })}>
              Take back
            </TextButton>
          </li>
        ))}
      </ul>
      {showMore ? <TextButton onClick={showMore}>Show more</TextButton> : null}
    </section>
  )
}

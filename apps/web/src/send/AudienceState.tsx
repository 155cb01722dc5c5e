import type { AudienceDetail, DestinationDocument } from '@upper-field/contract'
import { Button, TextButton } from '../kit/Button'
import { Notice } from '../kit/Notice'
import { Refused } from '../shell/Answer'
import { count, date, plural } from '../words/format'
import { useDeliverRemovalsMutation, useLookAtAudienceMutation } from './audienceApi'
import { dueText, matchedText } from './audienceText'

interface StateProps {
  readonly audience: AudienceDetail
  readonly destination: DestinationDocument | undefined
  readonly mayChange: boolean
}

/** What stands in the way, as the network reports it, and what to do about it. */
export function AudienceState({ audience, destination, mayChange }: StateProps) {
  const [look, looking] = useLookAtAudienceMutation()
  const { state, refusal } = audience
  const isWaiting = state === 'received' || state === 'matching'
  const due = dueText(audience, Date.now())
  return (
    <>
      {refusal ? (
        <Notice tone="bad">
          {refusal.says} {refusal.remedy}
          {refusal.takes ? ` That takes ${refusal.takes}.` : ''}
        </Notice>
      ) : null}
      {isWaiting ? (
        <Notice tone="told">
          {destination?.name ?? 'The network'} has it and compares. It can be put in a campaign once it is usable; this
          is asked for by itself.
        </Notice>
      ) : null}
      {due.tone === 'bad' || due.tone === 'look' ? (
        <p className={due.tone === 'bad' ? 'text-beet' : 'text-straw-ink'}>{due.text}</p>
      ) : null}
      {state !== 'not-sent' ? (
        <p>
          {refusal ? '' : matchedText(audience, destination?.size.toldFrom ?? null).text}
          {mayChange ? (
            <>
              {' '}
              <TextButton
                className="text-[13px]"
                disabled={looking.isLoading}
                onClick={() => void look({ params: { audienceId: audience.id } })}
              >
                Ask now
              </TextButton>
            </>
          ) : null}
        </p>
      ) : null}
      <Refused by={[looking]} />
    </>
  )
}

const OVERDUE_AFTER = 86_400_000

/** Who said no and is still there: they leave with the next delivery, by itself, or at once. */
export function OwedRemovals({ audience, mayChange }: { audience: AudienceDetail; mayChange: boolean }) {
  const [remove, removing] = useDeliverRemovalsMutation()
  const { owedRemovals, owedSince, removesByItself } = audience
  if (owedRemovals === 0) return null
  const isOverdue = owedSince !== null && Date.now() - Date.parse(owedSince) > OVERDUE_AFTER
  return (
    <section aria-label="Who must leave" className="flex flex-col gap-2">
      <Notice tone={isOverdue ? 'bad' : 'look'}>
        {plural(owedRemovals, 'person', 'people')} in it said no
        {owedSince ? ` since ${date(owedSince)}` : ''} and {owedRemovals === 1 ? 'has' : 'have'} to leave.{' '}
        {isOverdue ? 'This is overdue.' : ''}{' '}
        {removesByItself ? 'They are taken out with the next delivery, by itself within a day.' : ''}
      </Notice>
      <Refused by={[removing]} />
      {mayChange ? (
        <Button
          look="danger"
          disabled={removing.isLoading}
          onClick={() => void remove({ params: { audienceId: audience.id } })}
        >
          Take {count(owedRemovals)} out now
        </Button>
      ) : null}
    </section>
  )
}

import type { ContactStep, TrailCandidate } from '@upper-field/contract'
import { useReadContactTrailQuery, useStartFillMutation, useTakeCandidateMutation } from '../api'
import { useServiceNames } from '../connections/useConnected'
import { Button, TextButton } from '../kit/Button'
import { useMayChange } from '../people/useRole'
import { lastRead, Refused, Unanswered } from '../shell/Answer'
import { useListView } from '../shell/useListView'
import { CANDIDATE } from '../words/fill'
import { money, plural } from '../words/format'
import { JOB_PROBLEM } from '../words/jobs'
import { valueText } from '../words/story'
import { NOT_ASKED_WORD, STEP_WORD } from './trailText'
import { waitText } from './waitText'

/** What each provider was asked about one contact, said and charged; what was set aside can be taken by hand. */
export function TrailPanel({ contactId, name }: { contactId: number; name: string }) {
  const asked = useReadContactTrailQuery({ params: { contactId } })
  const trail = lastRead(asked)
  if (trail === undefined) return <Unanswered of={[asked]} what="the course" />
  return (
    <section aria-label={`Course of ${name || 'this contact'}`}>
      <h2 className="border-b border-line pb-2">{name || 'No name'}</h2>
      {trail === null ? <p className="pt-2 text-soft">Nobody was asked about this contact.</p> : null}
      {trail?.steps.map((step) => (
        <Step key={step.provider} step={step} contactId={contactId} wants={trail.wants} />
      ))}
    </section>
  )
}

interface StepProps {
  readonly step: ContactStep
  readonly contactId: number
  readonly wants: readonly ('mobile' | 'any-number' | 'work-email' | 'personal-email')[]
}

function Step({ step, contactId, wants }: StepProps) {
  const named = useServiceNames()
  const { provider, attempt, notAsked } = step
  return (
    <section className="border-b border-line py-3">
      <div className="flex items-baseline justify-between gap-2">
        <h3>{named(provider)}</h3>
        {attempt && attempt.cost + attempt.checks > 0 ? (
          <span className="num text-[13px]">
            {attempt.cost > 0 ? money(attempt.cost) : null}
            {attempt.checks > 0 ? `${attempt.cost > 0 ? ' + ' : ''}${money(attempt.checks)} checks` : null}
          </span>
        ) : null}
      </div>
      {notAsked ? <p className="text-[13.5px] text-soft">{NOT_ASKED_WORD[notAsked]}</p> : null}
      {attempt ? (
        <>
          <p className="text-[13.5px] text-soft">{saidText(attempt)}</p>
          <ul>
            {attempt.candidates.map((candidate) => (
              <Candidate key={candidate.position} candidate={candidate} attemptId={attempt.id} />
            ))}
          </ul>
        </>
      ) : null}
      {step.mayAsk === null ? null : (
        <AskToo provider={provider} most={step.mayAsk} contactId={contactId} wants={wants} />
      )}
    </section>
  )
}

function saidText({ state, reason, candidates, askedAt, answeredAt }: NonNullable<ContactStep['attempt']>): string {
  if (state === 'failed') return (reason && JOB_PROBLEM[reason]) ?? 'It failed.'
  if (state === 'waiting' || state === 'late') return STEP_WORD[state]
  const wait = answeredAt ? waitText(new Date(answeredAt).getTime() - new Date(askedAt).getTime()) : ''
  const after = wait ? ` after ${wait}` : ''
  return candidates.length === 0 ? `nothing known${after}` : `${plural(candidates.length, 'answer')}${after}`
}

function Candidate({ candidate, attemptId }: { candidate: TrailCandidate; attemptId: string }) {
  const mayChange = useMayChange()
  const [take, { error, isLoading }] = useTakeCandidateMutation()
  const { value, raw, score, outcome, keptAs, mayTake, position } = candidate
  const isTaken = outcome === 'accepted'
  return (
    <li className="pt-1 text-[13.5px]">
      <span className="num break-words">{value ? valueText(value) : raw}</span>
      {score > 0 ? <span className="text-soft"> score {score}</span> : null}
      <span className={isTaken ? 'font-semibold text-moss' : ''}>
        : {isTaken ? 'taken' : (CANDIDATE[outcome] ?? outcome)}
      </span>
      {keptAs === 'office' ? ', kept as the office’s' : keptAs === 'besides' ? ', kept all the same' : ''}
      {mayTake !== null && mayChange ? (
        <TextButton
          className="block text-[13px]"
          disabled={isLoading}
          onClick={() => void take({ params: { attemptId, position }, body: { agreed: mayTake } })}
        >
          Take it by hand · {mayTake > 0 ? money(mayTake) : 'paid for already'}
        </TextButton>
      ) : null}
      <Refused by={[{ error }]} />
    </li>
  )
}

/** Asks one provider more about this contact alone. */
function AskToo({
  provider,
  most,
  contactId,
  wants,
}: Pick<StepProps, 'contactId' | 'wants'> & { provider: string; most: number }) {
  const { listId } = useListView()
  const named = useServiceNames()
  const mayChange = useMayChange()
  const [start, { error, isLoading }] = useStartFillMutation()
  if (!mayChange) return null
  const body = {
    order: [provider],
    checksLines: true,
    budget: most,
    notAgainDays: 0,
    contactId,
    options: { wants: [...wants] },
  }
  return (
    <div className="pt-1">
      <Button className="w-full" disabled={isLoading} onClick={() => void start({ params: { listId }, body })}>
        Ask {named(provider)} too · at most {money(most)}
      </Button>
      <Refused by={[{ error }]} />
    </div>
  )
}

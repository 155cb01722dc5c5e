import type { Account, AudienceDetail, DestinationDocument } from '@upper-field/contract'
import { addressOf } from '@upper-field/contract'
import { whyNotFor } from '@upper-field/core/send'
import { useState } from 'react'
import { problemText, useReadDestinationsQuery, useReadMeQuery } from '../api'
import { Button, TextButton } from '../kit/Button'
import { Loading, Notice } from '../kit/Notice'
import { count, date, plural, time } from '../words/format'
import { AccountName } from './AccountName'
import { AudienceSettings } from './AudienceSettings'
import {
  useDeliverRemovalsMutation,
  useLookAtAudienceMutation,
  usePrepareEditionMutation,
  useReadAccountsQuery,
  useReadAudienceQuery,
} from './audienceApi'
import { dueText, matchedText, PURPOSE, stateText } from './audienceText'
import { Evidence } from './Evidence'
import { NextEdition } from './NextEdition'
import { Sent } from './Sent'
import { Trials } from './Trials'

/** How often an audience is read anew while its network is at work, in milliseconds. */
const AT_WORK = 3000

/** One audience: what its next edition changes, and what came of the last. */
export function AudiencePanel({ audienceId, onGone }: { audienceId: string; onGone: () => void }) {
  const [isAtWork, setIsAtWork] = useState(false)
  const { data: audience, error } = useReadAudienceQuery(
    { params: { audienceId } },
    { pollingInterval: isAtWork ? AT_WORK : 0 },
  )
  const { data: destinations = [] } = useReadDestinationsQuery({})
  if (error) return <Notice tone="bad">{problemText(error)}</Notice>
  if (!audience) return <Loading what="the audience" />
  const isBusy =
    audience.state === 'received' ||
    audience.state === 'matching' ||
    audience.trials.some(({ state }) => state === 'on')
  if (isBusy !== isAtWork) setIsAtWork(isBusy)
  const destination = destinations.find(({ id }) => id === audience.destination)
  return <Opened audience={audience} destination={destination} onGone={onGone} />
}

interface OpenedProps {
  readonly audience: AudienceDetail
  readonly destination: DestinationDocument | undefined
  readonly onGone: () => void
}

function Opened({ audience, destination, onGone }: OpenedProps) {
  const { data: me } = useReadMeQuery({})
  const [isChanging, setIsChanging] = useState(false)
  const mayChange = me !== undefined && me.role !== 'viewer'
  return (
    <div className="flex flex-col gap-3">
      <header>
        <div className="flex items-baseline justify-between gap-3">
          <h2 className="min-w-0 truncate" title={audience.title}>
            {audience.title}
          </h2>
          {mayChange ? (
            <TextButton className="shrink-0 text-[13px]" onClick={() => setIsChanging(true)}>
              Change
            </TextButton>
          ) : null}
        </div>
        <p>
          to {destination?.name ?? audience.destination} · <AccountName {...audience.account} />
        </p>
        <p className="text-[13px] text-soft">
          {PURPOSE[audience.purpose]} · {stateText(audience)}
          {audience.toldAt ? `, told ${time(audience.toldAt)}` : ''}
        </p>
      </header>
      <State audience={audience} destination={destination} mayChange={mayChange} />
      <Owed audience={audience} mayChange={mayChange} />
      {audience.similarTo ? (
        <p className="text-soft">The network makes it out of another audience: nothing is sent to it.</p>
      ) : (
        <Next audience={audience} destination={destination} mayChange={mayChange} />
      )}
      <Sent audience={audience} />
      <Evidence audience={audience} />
      <Trials audience={audience} network={destination?.network ?? null} mayChange={mayChange} />
      {isChanging ? (
        <AudienceSettings audience={audience} onClose={() => setIsChanging(false)} onGone={onGone} />
      ) : null}
    </div>
  )
}

/** What stands in the way, as the network reports it, and what to do about it. */
function State({ audience, destination, mayChange }: Omit<OpenedProps, 'onGone'> & { mayChange: boolean }) {
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
      {looking.error ? <Notice tone="bad">{problemText(looking.error)}</Notice> : null}
    </>
  )
}

const OVERDUE_AFTER = 86_400_000

/** Who said no and is still there: they leave with the next delivery, by itself, or at once. */
function Owed({ audience, mayChange }: { audience: AudienceDetail; mayChange: boolean }) {
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
      {removing.error ? <Notice tone="bad">{problemText(removing.error)}</Notice> : null}
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

/** The account is looked at before an edition is prepared: what it lacks is said with what to do. */
function Next({ audience, destination, mayChange }: Omit<OpenedProps, 'onGone'> & { mayChange: boolean }) {
  const [prepare, preparing] = usePrepareEditionMutation()
  const isCalled = destination?.network !== null && destination?.network !== undefined
  const { data: accounts, error } = useReadAccountsQuery(
    { params: { destinationId: audience.destination } },
    { skip: !isCalled },
  )
  const lack = lackOf(audience, accounts, destination)
  return (
    <>
      {lack ? (
        <Notice tone="bad">
          <AccountName {...audience.account} />: {lack.says} {lack.remedy}
          {lack.takes ? ` That takes ${lack.takes}.` : ''}
        </Notice>
      ) : null}
      {isCalled && error ? <Notice tone="look">{problemText(error)}</Notice> : null}
      {audience.difference ? (
        <NextEdition
          audience={audience}
          difference={audience.difference}
          destination={destination}
          isFit={isCalled && !error && lack === null}
          mayChange={mayChange}
        />
      ) : null}
      {audience.preparing ? <p role="status">Preparing the next edition …</p> : null}
      {preparing.error ? <Notice tone="bad">{problemText(preparing.error)}</Notice> : null}
      {mayChange && !audience.preparing ? (
        <Button
          look={audience.difference ? 'plain' : 'main'}
          disabled={preparing.isLoading}
          onClick={() => void prepare({ params: { audienceId: audience.id } })}
        >
          {audience.difference ? 'Prepare it anew' : 'Prepare the next edition'}
        </Button>
      ) : null}
      {mayChange && audience.difference ? (
        <a
          href={addressOf('downloadEdition', { params: { editionId: audience.difference.editionId } })}
          download={audience.difference.fileName}
          className="self-start text-slate underline underline-offset-2"
        >
          Download the file
        </a>
      ) : null}
    </>
  )
}

function lackOf(
  audience: AudienceDetail,
  accounts: readonly Account[] | undefined,
  destination: DestinationDocument | undefined,
) {
  const account = accounts?.find(({ id }) => id === audience.account.id)
  if (!account || !destination?.network) return null
  const codes = { id: account.id, name: account.name, lacks: account.lacks.map(({ code }) => code) }
  return whyNotFor(destination.network, codes, audience.purpose)
}

import type { Account, AudienceDetail, DestinationDocument } from '@upper-field/contract'
import { addressOf } from '@upper-field/contract'
import { whyNotFor } from '@upper-field/core/send'
import { useState } from 'react'
import { problemText, useReadDestinationsQuery } from '../api'
import { Button, TextButton } from '../kit/Button'
import { Notice } from '../kit/Notice'
import { useMayChange } from '../people/useRole'
import { lastRead, Refused, Unanswered } from '../shell/Answer'
import { time } from '../words/format'
import { AccountName } from './AccountName'
import { AudienceSettings } from './AudienceSettings'
import { AudienceState, OwedRemovals } from './AudienceState'
import { usePrepareEditionMutation, useReadAccountsQuery, useReadAudienceQuery } from './audienceApi'
import { isChanging, PURPOSE, stateText } from './audienceText'
import { Evidence } from './Evidence'
import { NextEdition } from './NextEdition'
import { Sent } from './Sent'
import { Trials } from './Trials'

/** How often an audience is read anew while its network or a count is at work, in milliseconds. */
const AT_WORK = 3000

/** One audience: what its next edition changes, and what came of the last. */
export function AudiencePanel({ audienceId, onGone }: { audienceId: string; onGone: () => void }) {
  const [isAtWork, setIsAtWork] = useState(false)
  const asked = useReadAudienceQuery({ params: { audienceId } }, { pollingInterval: isAtWork ? AT_WORK : 0 })
  const audience = lastRead(asked)
  const { data: destinations = [] } = useReadDestinationsQuery({})
  if (!audience) return <Unanswered of={[asked]} what="the audience" />
  const isBusy = isChanging(audience) || audience.trials.some(({ state }) => state === 'on')
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
  const [isInSettings, setIsInSettings] = useState(false)
  const mayChange = useMayChange()
  return (
    <div className="flex flex-col gap-3">
      <header>
        <div className="flex items-baseline justify-between gap-3">
          <h2 className="min-w-0 truncate" title={audience.title}>
            {audience.title}
          </h2>
          {mayChange ? (
            <TextButton className="shrink-0 text-[13px]" onClick={() => setIsInSettings(true)}>
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
      <AudienceState audience={audience} destination={destination} mayChange={mayChange} />
      <OwedRemovals audience={audience} mayChange={mayChange} />
      {audience.similarTo ? (
        <p className="text-soft">The network makes it out of another audience: nothing is sent to it.</p>
      ) : (
        <Next audience={audience} destination={destination} mayChange={mayChange} />
      )}
      <Sent audience={audience} />
      <Evidence audience={audience} />
      <Trials audience={audience} network={destination?.network ?? null} mayChange={mayChange} />
      {isInSettings ? (
        <AudienceSettings audience={audience} onClose={() => setIsInSettings(false)} onGone={onGone} />
      ) : null}
    </div>
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
      <Refused by={[preparing]} />
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

import type { AudienceDetail, DestinationDocument, Difference } from '@upper-field/contract'
import { Button } from '../kit/Button'
import { Refused } from '../shell/Answer'
import { count, time } from '../words/format'
import { useDeliverEditionMutation } from './audienceApi'
import { isNoChange, sendText } from './audienceText'
import { ForecastBars } from './ForecastBars'

interface NextEditionProps {
  readonly audience: AudienceDetail
  readonly difference: Difference
  readonly destination: DestinationDocument | undefined
  /** The network can be called, and the account lacks nothing. */
  readonly isFit: boolean
  readonly mayChange: boolean
}

/** The edition that is ready: what sending it would change, before it is sent. */
export function NextEdition({ audience, difference, destination, isFit, mayChange }: NextEditionProps) {
  const [deliver, delivering] = useDeliverEditionMutation()
  const { comes, leaves, leavesSuppressed, changed, stays, renewed, leftOut, suppressedSince } = difference
  const isUnderWay = audience.latest?.state === 'under-way'
  return (
    <section aria-label="Next edition" className="flex flex-col gap-3">
      <p>
        Next edition of {time(difference.madeAt)}: <strong>{count(difference.people)}</strong>{' '}
        {audience.takes === 'people' ? 'people' : 'companies'}
      </p>
      <dl>
        <Line
          name="Come in"
          n={comes}
          more={changed > 0 ? `${count(changed)} of them stay, with other values than before` : ''}
        />
        <Line name="Leave" n={leaves} more={leavesSuppressed > 0 ? `${count(leavesSuppressed)} of them said no` : ''} />
        <Line
          name="Stay"
          n={stays}
          more={renewed > 0 ? `${count(renewed)} are sent again, so that they do not lapse` : ''}
        />
        <Line name="Cannot be sent" n={leftOut} more="nothing to match by, or a field is missing; still in the list" />
        {suppressedSince > 0 ? (
          <Line name="Said no since it was prepared" n={suppressedSince} more="left out of the delivery" isLoud />
        ) : null}
      </dl>
      <ForecastBars forecast={difference.forecast} fewestMatched={destination?.size.fewestMatched ?? null} />
      <Refused by={[delivering]} />
      {isNoChange(difference) ? <p className="text-soft">Nothing has changed since the last edition.</p> : null}
      {mayChange && isFit && !isNoChange(difference) ? (
        <Button
          look="main"
          disabled={delivering.isLoading || isUnderWay}
          onClick={() =>
            void deliver({
              params: { audienceId: audience.id },
              body: { editionId: difference.editionId, account: audience.account.id },
            })
          }
        >
          {isUnderWay ? 'Being sent …' : sendText(difference, audience.account.name)}
        </Button>
      ) : null}
    </section>
  )
}

const Line = ({ name, n, more = '', isLoud = false }: { name: string; n: number; more?: string; isLoud?: boolean }) => (
  <div className="flex items-baseline justify-between gap-3 border-t border-line py-1.5">
    <dt>
      {name}
      {more ? <span className="block text-[13px] text-soft">{more}</span> : null}
    </dt>
    <dd className={`num font-semibold ${n === 0 ? 'text-soft' : isLoud ? 'text-beet' : ''}`}>{count(n)}</dd>
  </div>
)

import { type HarvestDetail, isOver, type Job } from '@upper-field/contract'
import { Link } from 'react-router'
import { Button } from '../kit/Button'
import { Refused } from '../shell/Answer'
import { count, plural } from '../words/format'
import { useTakeHarvestMutation } from './harvestApi'

/** What the batch would hold by now, and how it is made. */
export function HarvestSoFar({
  harvest,
  job,
  mayChange,
}: {
  harvest: HarvestDetail
  job: Job | undefined
  mayChange: boolean
}) {
  const [take, taken] = useTakeHarvestMutation()
  const isReading = job !== undefined && !isOver(job)
  return (
    <section aria-label="The batch so far" className="pt-4">
      <h2 className="pb-1 text-[15px]">The batch so far</h2>
      <dl>
        {(
          [
            ['Businesses', harvest.businesses, ''],
            ['Numbers, each with its page', harvest.numbers, ''],
            ['Addresses', harvest.emails, ''],
            ['To look at', harvest.toLookAt, harvest.toLookAt > 0 ? 'text-straw-ink' : ''],
          ] as const
        ).map(([label, n, tone]) => (
          <div key={label} className="flex justify-between py-0.5">
            <dt>{label}</dt>
            <dd className={`num ${tone}`}>{count(n)}</dd>
          </div>
        ))}
      </dl>
      <Refused by={[taken]} />
      {harvest.batchId ? (
        <p className="pt-2">
          These are a batch of the list now.{' '}
          <Link to={`/lists/${harvest.listId}/tidy`} className="text-slate underline underline-offset-2">
            Tidy
          </Link>
        </p>
      ) : mayChange ? (
        <div className="flex flex-col gap-1 pt-3">
          <Button
            look="main"
            disabled={isReading || harvest.businesses === 0 || taken.isLoading}
            onClick={() => void take({ params: { harvestId: harvest.id } })}
          >
            Bring in {plural(harvest.businesses, 'business', 'businesses')}
          </Button>
          <p className="text-[13px] text-soft">
            {isReading
              ? 'Once all pages are read, or when it is stopped.'
              : harvest.toLookAt > 0
                ? 'What nobody has looked at is left out.'
                : 'An ordinary batch: source “public page”, with the page and the day beside each.'}
          </p>
        </div>
      ) : null}
    </section>
  )
}

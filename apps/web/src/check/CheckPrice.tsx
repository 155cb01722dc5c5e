import { isUnderWay, type List } from '@upper-field/contract'
import { useOutletContext } from 'react-router'
import { problemText, useEstimateCheckQuery, useReadJobsQuery, useReadMeQuery, useStartCheckMutation } from '../api'
import { NotConnected } from '../connections/NotConnected'
import { useConnected } from '../connections/useConnected'
import { Button, ButtonLink } from '../kit/Button'
import { Loading, Notice } from '../kit/Notice'
import { JobLine } from '../shell/JobStrip'
import { useListView } from '../shell/useListView'
import { count, money, plural } from '../words/format'

/** What a check would cost, before anything is asked: how many, and how much at most. */
export function CheckPrice() {
  const { listId, text } = useListView()
  const list = useOutletContext<List>()
  const { data: me } = useReadMeQuery({})
  const { data: estimate, error } = useEstimateCheckQuery({ params: { listId }, query: { filter: text } })
  const { data: jobs = [] } = useReadJobsQuery({ params: { listId } })
  const [start, starting] = useStartCheckMutation()
  const job = jobs.find(({ kind }) => kind === 'check')
  const isBusy = job !== undefined && isUnderWay(job)
  const connected = useConnected()
  if (error) return <Notice tone="bad">{problemText(error)}</Notice>
  if (!estimate) return <Loading what="the price" />
  if (connected && !connected.register)
    return (
      <NotConnected title="No line register is connected" next={`/lists/${listId}/fill`} nextText="Next: fill the gaps">
        Line types here are those of the numbering plans. Whether a number rings, and what it is where fixed lines and
        mobiles share their numbers, only a register knows.
      </NotConnected>
    )
  return (
    <div className="flex flex-col gap-3">
      <h2>Before you check</h2>
      <p>
        {text === '' ? 'This list holds' : 'Chosen here are'} {plural(estimate.numbers, 'number')}.{' '}
        <span className="num">{count(estimate.fresh)}</span> were answered in the last 60 days, or are being asked
        about, and cost nothing.
      </p>
      <p>
        <span className="num block text-[24px] font-bold leading-8">{money(estimate.most)}</span>
        <span className="text-soft">at most, at the line register. An answer of “unknown” is free.</span>
      </p>
      {starting.error ? <Notice tone="bad">{problemText(starting.error)}</Notice> : null}
      {me?.role !== 'viewer' && !list.archivedAt ? (
        <Button
          look="main"
          disabled={estimate.toAsk === 0 || starting.isLoading || isBusy}
          onClick={() => void start({ params: { listId }, body: { filter: text, agreed: estimate.most } })}
        >
          {estimate.toAsk === 0
            ? 'Every answer is fresh'
            : `Check ${plural(estimate.toAsk, 'number')} · at most ${money(estimate.most)}`}
        </Button>
      ) : null}
      {job ? (
        <section aria-label="Latest check" className="border-t border-line pt-3">
          <JobLine job={job} />
          {job.state === 'done' ? (
            <p className="pt-1 text-[13px] text-soft">
              {plural(job.done, 'number')} asked about, {count(Number(job.result.unknown ?? 0))} not known there,{' '}
              {money(Number(job.result.spent ?? 0))} charged.
            </p>
          ) : null}
        </section>
      ) : null}
      <p className="border-t border-line pt-3 text-soft">
        In some plans fixed lines and mobiles share their numbers. Only the register tells them apart, and which are out
        of service.
      </p>
      <ButtonLink to={`/lists/${listId}/fill`}>Next: fill the gaps</ButtonLink>
    </div>
  )
}

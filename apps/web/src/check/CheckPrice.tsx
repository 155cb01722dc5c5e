import { type CheckOf, isUnderWay, type List } from '@upper-field/contract'
import { useState } from 'react'
import { useOutletContext } from 'react-router'
import { useEstimateCheckQuery, useReadCheckSettingsQuery, useReadJobsQuery, useStartCheckMutation } from '../api'
import { NotConnected } from '../connections/NotConnected'
import { useConnected } from '../connections/useConnected'
import { Button, ButtonLink, TextButton } from '../kit/Button'
import { useIsOwner, useMayChange } from '../people/useRole'
import { lastRead, Refused, Unanswered } from '../shell/Answer'
import { JobLine } from '../shell/JobStrip'
import { useListView } from '../shell/useListView'
import { usePiles } from '../shell/usePiles'
import { count, money, plural } from '../words/format'
import { CheckSettingsDialog } from './CheckSettingsDialog'
import { CHECK_WORDS, inVain } from './checkWords'

/** Who is asked, as the connections tell it. */
const ROLE = { numbers: 'register', addresses: 'verifier', 'do-not-call': 'doNotCall' } as const

/** What a check would cost, before anything is asked: how many, and how much at most. */
export function CheckPrice({ of }: { of: CheckOf }) {
  const { listId, text } = useListView()
  const list = useOutletContext<List>()
  const mayChange = useMayChange()
  const asked = useEstimateCheckQuery({ params: { listId }, query: { filter: text, of } })
  const estimate = lastRead(asked)
  const { data: jobs = [] } = useReadJobsQuery({ params: { listId } })
  const [start, starting] = useStartCheckMutation()
  const checks = jobs.filter(({ kind }) => kind === 'check')
  const job = checks.find(({ unit }) => unit === of)
  const isBusy = checks.some(isUnderWay)
  const connected = useConnected()
  const words = CHECK_WORDS[of]
  if (!estimate) return <Unanswered of={[asked]} what="the price" />
  if (connected && !connected[ROLE[of]])
    return (
      <NotConnected
        title={of === 'do-not-call' ? 'No do-not-call register is connected' : `No ${words.service} is connected`}
        next={`/lists/${listId}/fill`}
        nextText="Next: fill the gaps"
      >
        {words.none}
      </NotConnected>
    )
  const many = words.many
  return (
    <div className="flex flex-col gap-3">
      <h2>Before you check</h2>
      <p>
        {text === '' ? 'This list holds' : 'Chosen here are'} {plural(estimate.subjects, words.one, many)}.{' '}
        <span className="num">{count(estimate.fresh)}</span> have a fresh answer, or are being asked about, and cost
        nothing.
        {estimate.stale > 0
          ? ` ${plural(estimate.stale, 'answer is', 'answers are')} too old and asked for again.`
          : ''}
      </p>
      <p>
        <span className="num block text-[24px] font-bold leading-8">{money(estimate.most)}</span>
        <span className="text-soft">
          at most, at the {words.service}. {words.free}
        </span>
      </p>
      <Refused by={[starting]} />
      {mayChange && !list.archivedAt ? (
        <Button
          look="main"
          disabled={estimate.toAsk === 0 || starting.isLoading || isBusy}
          onClick={() => void start({ params: { listId }, body: { of, filter: text, agreed: estimate.most } })}
        >
          {estimate.toAsk === 0
            ? 'Every answer is fresh'
            : `Check ${plural(estimate.toAsk, words.one, many)} · at most ${money(estimate.most)}`}
        </Button>
      ) : null}
      {job ? (
        <section aria-label="Latest check" className="border-t border-line pt-3">
          <JobLine job={job} />
          {job.state === 'done' ? (
            <p className="pt-1 text-[13px] text-soft">
              {job.total === 0
                ? 'All of them were asked about by another check meanwhile. Nothing was charged.'
                : `${plural(job.done, words.one, many)} asked about, ${count(Number(job.result.unknown ?? 0))} not known there, ${money(Number(job.result.spent ?? 0))} charged.`}
            </p>
          ) : null}
        </section>
      ) : null}
      {of === 'do-not-call' ? null : <InVain of={of} />}
      <p className="border-t border-line pt-3 text-soft">{words.why}</p>
      <ButtonLink to={`/lists/${listId}/fill`}>Next: fill the gaps</ButtonLink>
    </div>
  )
}

/** What writing to those nobody reads would have cost. */
function InVain({ of }: { of: Exclude<CheckOf, 'do-not-call'> }) {
  const { listId, text } = useListView()
  const { data: piles, sign } = usePiles({ listId, text })
  const { data: settings } = useReadCheckSettingsQuery({})
  const isOwner = useIsOwner()
  const [isOpen, setIsOpen] = useState(false)
  if (!piles || !settings) return null
  const { contacts, cost } = inVain(of, piles, settings)
  return (
    <section aria-label="Costs that are saved" className="border-t border-line pt-3">
      <p>
        {of === 'numbers' ? 'Texting the fixed and dead lines here' : 'Mailing the addresses here that take none'} (
        {sign}
        {count(contacts)}) would cost{' '}
        <span className="num font-semibold text-beet">
          {sign}
          {money(cost)}
        </span>{' '}
        each time.
      </p>
      {isOwner ? (
        <TextButton className="text-[13px]" onClick={() => setIsOpen(true)}>
          Prices, hours, and how long answers keep
        </TextButton>
      ) : null}
      {isOpen ? <CheckSettingsDialog settings={settings} onClose={() => setIsOpen(false)} /> : null}
    </section>
  )
}

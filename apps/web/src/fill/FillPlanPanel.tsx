import { isUnderWay, type List } from '@upper-field/contract'
import { useState } from 'react'
import { useOutletContext } from 'react-router'
import { problemText, useEstimateFillQuery, useReadJobsQuery, useReadMeQuery, useStartFillMutation } from '../api'
import { Button, ButtonLink } from '../kit/Button'
import { TextField } from '../kit/Field'
import { Loading, Notice } from '../kit/Notice'
import { JobLine } from '../shell/JobStrip'
import { useListView } from '../shell/useListView'
import { money, plural } from '../words/format'
import { budgetOf, DEFAULT_BUDGET } from './budget'

/** The plan of a fill: budget, line checks, and the most it can cost, before a provider is asked. */
export function FillPlanPanel({
  order,
  checksLines,
  setChecksLines,
}: {
  order: readonly string[]
  checksLines: boolean
  setChecksLines: (on: boolean) => void
}) {
  const { listId, text: filter } = useListView()
  const list = useOutletContext<List>()
  const { data: me } = useReadMeQuery({})
  const { data: estimate, error } = useEstimateFillQuery({
    params: { listId },
    query: { filter, order: order.join(','), checksLines: checksLines ? 'yes' : 'no' },
  })
  const { data: jobs = [] } = useReadJobsQuery({ params: { listId } })
  const [budgetText, setBudgetText] = useState(DEFAULT_BUDGET)
  const [start, starting] = useStartFillMutation()
  const job = jobs.find(({ kind }) => kind === 'fill')
  const isBusy = job !== undefined && isUnderWay(job)
  if (error) return <Notice tone="bad">{problemText(error)}</Notice>
  if (!estimate) return <Loading what="the plan" />
  const typed = budgetOf(budgetText)
  const isBudget = typed !== null
  const budget = typed ?? 0
  const most = Math.min(estimate.most, budget)
  return (
    <div className="flex flex-col gap-3">
      <h2>The plan</h2>
      <p>
        {plural(estimate.wanting, 'contact')} {filter === '' ? 'have no mobile' : 'of those chosen have no mobile'}.
        Asking everybody about each of them could cost {money(estimate.most)}. Whoever is suppressed is left out.
      </p>
      <TextField
        label="Budget in euros"
        inputMode="decimal"
        value={budgetText}
        onChange={(event) => setBudgetText(event.target.value)}
        error={isBudget ? undefined : 'A sum above 0, such as 25 or 12.50.'}
        hint="Never passed: what an asking may cost is set aside before it."
      />
      <label className="flex items-start gap-2">
        <input
          type="checkbox"
          checked={checksLines}
          onChange={(event) => setChecksLines(event.target.checked)}
          className="mt-1 size-4 accent-moss"
        />
        <span>
          Check each line found
          <span className="block text-[13px] text-soft">
            Accepted only when the register calls it a mobile and not out of service.
          </span>
        </span>
      </label>
      {starting.error ? <Notice tone="bad">{problemText(starting.error)}</Notice> : null}
      {me?.role !== 'viewer' && !list.archivedAt ? (
        <Button
          look="main"
          disabled={!isBudget || estimate.wanting === 0 || isBusy || starting.isLoading}
          onClick={() => void start({ params: { listId }, body: { order: [...order], checksLines, budget, filter } })}
        >
          Fill {plural(estimate.wanting, 'contact')} · at most {money(most)}
        </Button>
      ) : null}
      {job ? (
        <section aria-label="Latest fill" className="border-t border-line pt-3">
          <JobLine job={job} />
        </section>
      ) : null}
      <p className="border-t border-line pt-3 text-soft">
        What a provider found and we did not take is kept with its reason. Some answer late; nothing waits for them.
      </p>
      <ButtonLink to={`/lists/${listId}/split`}>Next: split by channel</ButtonLink>
    </div>
  )
}

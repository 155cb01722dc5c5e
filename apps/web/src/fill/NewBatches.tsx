import { useState } from 'react'
import { useChangeStandingFillMutation, useReadStandingFillQuery } from '../api'
import { useServiceNames } from '../connections/useConnected'
import { Button } from '../kit/Button'
import { TextField } from '../kit/Field'
import { Refused } from '../shell/Answer'
import { useListView } from '../shell/useListView'
import { budgetOf } from '../words/budget'
import { money } from '../words/format'
import { optionsOf, type PlanDraft } from './plan'

const USUAL = '10'

/** New batches filled on their own, by the plan on the screen, up to an amount each: off until somebody switches it on. */
export function NewBatches({ plan, isRight }: { plan: PlanDraft; isRight: boolean }) {
  const { listId } = useListView()
  const named = useServiceNames()
  const { data: standing } = useReadStandingFillQuery({ params: { listId } })
  const [change, { error, isLoading }] = useChangeStandingFillMutation()
  const [text, setText] = useState(USUAL)
  const perBatch = budgetOf(text)
  const isOn = standing?.isOn === true
  return (
    <details className="border-t border-line pt-2">
      <summary className="cursor-pointer font-semibold">New batches {isOn ? 'are filled on their own' : ''}</summary>
      <div className="flex flex-col gap-2 pt-2">
        {isOn ? (
          <>
            <p>
              Each is filled once it is in, by {standing.plan.order.map(named).join(', ')}, for{' '}
              <span className="num">{money(standing.perBatch)}</span> at most. Set by {standing.changedBy}.
            </p>
            <Button
              disabled={isLoading}
              onClick={() => {
                const { perBatch, plan } = standing
                void change({ params: { listId }, body: { isOn: false, perBatch, plan } })
              }}
            >
              Fill them no more on their own
            </Button>
          </>
        ) : (
          <>
            <TextField
              label="At most for each batch, in euros"
              inputMode="decimal"
              value={text}
              onChange={(event) => setText(event.target.value)}
              error={perBatch === null ? 'A sum above 0, such as 10.' : undefined}
            />
            <Button
              disabled={perBatch === null || !isRight || isLoading}
              onClick={() => {
                const { order, checksLines } = plan
                const kept = {
                  order: [...order],
                  checksLines,
                  notAgainDays: Number(plan.notAgainDays),
                  options: optionsOf(plan),
                }
                void change({ params: { listId }, body: { isOn: true, perBatch: perBatch ?? 0, plan: kept } })
              }}
            >
              Fill each new batch by this plan
            </Button>
          </>
        )}
        <Refused by={[{ error }]} />
      </div>
    </details>
  )
}

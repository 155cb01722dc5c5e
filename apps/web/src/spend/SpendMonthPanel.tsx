import type { SpendMonth } from '@upper-field/contract'
import { useState } from 'react'
import { useChangeSpendLimitMutation, useReadSpendMonthQuery } from '../api'
import { Button, TextButton } from '../kit/Button'
import { TextField } from '../kit/Field'
import { Notice } from '../kit/Notice'
import { useIsOwner } from '../people/useRole'
import { lastRead, Refused, Unanswered } from '../shell/Answer'
import { budgetOf, eurosOf } from '../words/budget'
import { money } from '../words/format'
import { standingOf } from './spendLines'

/** What this month has cost, what is promised to work under way, and the most that may be spent. */
export function SpendMonthPanel() {
  const asked = useReadSpendMonthQuery({}, { refetchOnMountOrArgChange: true })
  const month = lastRead(asked)
  const isOwner = useIsOwner()
  const [isChanging, setChanging] = useState(false)
  if (!month) return <Unanswered of={[asked]} what="the month" />
  return (
    <section aria-label="This month" className="flex flex-col gap-2">
      <h2>This month</h2>
      <p>
        <span className="num text-[24px] font-bold leading-8">{money(month.spent)}</span>{' '}
        <span className="text-soft">{month.limit === null ? 'spent' : `of ${money(month.limit)} spent`}</span>
      </p>
      <p className="text-soft">
        {month.promised > 0
          ? `Up to ${money(month.promised)} more for work under way.`
          : 'No work is under way that spends.'}
      </p>
      <Standing month={month} />
      {isOwner && !isChanging ? (
        <p>
          <TextButton onClick={() => setChanging(true)}>
            {month.limit === null ? 'Set a limit for each month' : 'Change the limit'}
          </TextButton>
        </p>
      ) : null}
      {isChanging ? <ChangeLimit month={month} onDone={() => setChanging(false)} /> : null}
    </section>
  )
}

function Standing({ month }: { month: SpendMonth }) {
  const standing = standingOf(month)
  if (standing === 'reached')
    return <Notice tone="bad">The limit is reached: nothing that costs can be started until next month.</Notice>
  if (standing === 'nearly') return <Notice tone="look">Less than a fifth of this month’s limit is left.</Notice>
  return standing === 'free' ? <p className="text-soft">No limit is set for a month.</p> : null
}

function ChangeLimit({ month, onDone }: { month: SpendMonth; onDone: () => void }) {
  const [text, setText] = useState(() => eurosOf(month.limit))
  const [change, { error, isLoading }] = useChangeSpendLimitMutation()
  const limit = budgetOf(text)
  const submit = async (next: number | null) => {
    const changed = await change({ body: { limit: next } })
    if (!changed.error) onDone()
  }
  return (
    <form
      className="flex flex-col gap-2"
      onSubmit={(event) => {
        event.preventDefault()
        if (limit !== null) void submit(limit)
      }}
    >
      <TextField
        label="Most in a month, in euros"
        inputMode="decimal"
        value={text}
        onChange={(event) => setText(event.target.value)}
        error={text !== '' && limit === null ? 'A sum above 0, such as 250.' : undefined}
        hint="What could pass it is not started. Work that has begun goes on within what it was given."
      />
      <Refused by={[{ error }]} />
      <div className="flex flex-wrap gap-2">
        <Button look="main" type="submit" disabled={limit === null || isLoading}>
          Keep
        </Button>
        {month.limit === null ? null : <Button onClick={() => void submit(null)}>No limit</Button>}
        <Button onClick={onDone}>Cancel</Button>
      </div>
    </form>
  )
}

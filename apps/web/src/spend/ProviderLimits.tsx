import type { SpendMonth } from '@upper-field/contract'
import { useState } from 'react'
import { useChangeProviderLimitMutation, useReadSpendMonthQuery } from '../api'
import { Button, TextButton } from '../kit/Button'
import { Dialog } from '../kit/Dialog'
import { TextField } from '../kit/Field'
import { useIsOwner } from '../people/useRole'
import { Refused } from '../shell/Answer'
import { budgetOf, eurosOf } from '../words/budget'
import { money } from '../words/format'
import { standingOf } from './spendLines'

type ProviderMonth = SpendMonth['providers'][number]

/** What each service has charged this month, and the most it may. */
export function ProviderLimits() {
  const { data: month } = useReadSpendMonthQuery({})
  const isOwner = useIsOwner()
  const [changing, setChanging] = useState<ProviderMonth | null>(null)
  if (!month || month.providers.length === 0) return null
  return (
    <section aria-label="Services this month" className="pb-6">
      <h2 className="pb-1">Services this month</h2>
      <table className="w-full">
        <thead className="text-left text-[13px] text-soft">
          <tr className="border-b border-edge">
            <th className="py-1 font-normal">Service</th>
            <th className="pl-2 text-right font-normal">Charged</th>
            <th className="pl-2 text-right font-normal">Held for open questions</th>
            <th className="pl-2 text-right font-normal">At most</th>
            <th className="pl-6 font-normal">How it stands</th>
            <th className="sr-only">Change</th>
          </tr>
        </thead>
        <tbody>
          {month.providers.map((one) => (
            <tr key={one.provider} className="border-b border-line">
              <th scope="row" className="py-1 text-left font-semibold">
                {one.name}
              </th>
              <td className="num text-right">{money(one.spent)}</td>
              <td className="num text-right">{money(one.waiting)}</td>
              <td className="num text-right">{one.limit === null ? '–' : money(one.limit)}</td>
              <td className="pl-6">{standingText(one)}</td>
              <td className="text-right">
                {isOwner ? (
                  <TextButton
                    className="text-[13px]"
                    aria-label={`${one.limit === null ? 'Set a limit' : 'Change the limit'} for ${one.name}`}
                    onClick={() => setChanging(one)}
                  >
                    {one.limit === null ? 'Set a limit' : 'Change'}
                  </TextButton>
                ) : null}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {changing ? <ChangeLimit month={changing} onDone={() => setChanging(null)} /> : null}
    </section>
  )
}

function standingText({ limit, spent, waiting }: ProviderMonth) {
  const standing = standingOf({ limit, spent, promised: waiting })
  if (standing === 'reached') return <span className="text-beet">reached: not asked any more this month</span>
  if (standing === 'nearly') return <span className="text-straw-ink">less than a fifth is left</span>
  return <span className="text-soft">{standing === 'free' ? 'no limit' : 'enough is left'}</span>
}

function ChangeLimit({ month, onDone }: { month: ProviderMonth; onDone: () => void }) {
  const { provider, name } = month
  const [text, setText] = useState(() => eurosOf(month.limit))
  const [change, { error, isLoading }] = useChangeProviderLimitMutation()
  const limit = budgetOf(text)
  const keep = async (next: number | null) => {
    const changed = await change({ params: { provider }, body: { limit: next } })
    if (!changed.error) onDone()
  }
  return (
    <Dialog title={`Most for ${name} in a month`} isOpen onClose={onDone}>
      <form
        className="flex flex-col gap-3"
        onSubmit={(event) => {
          event.preventDefault()
          if (limit !== null) void keep(limit)
        }}
      >
        <TextField
          label="In euros"
          inputMode="decimal"
          value={text}
          onChange={(event) => setText(event.target.value)}
          error={text !== '' && limit === null ? 'A sum above 0, such as 50.' : undefined}
          hint="Once it could be passed, runs go on without this service, and checks by it are not started."
        />
        <Refused by={[{ error }]} />
        <div className="flex justify-end gap-2">
          {month.limit === null ? null : <Button onClick={() => void keep(null)}>No limit</Button>}
          <Button onClick={onDone}>Cancel</Button>
          <Button look="main" type="submit" disabled={limit === null || isLoading}>
            Keep
          </Button>
        </div>
      </form>
    </Dialog>
  )
}

import type { Connection, Named } from '@upper-field/contract'
import { useState } from 'react'
import { useNavigate } from 'react-router'
import { Button } from '../kit/Button'
import { SelectField, TextField } from '../kit/Field'
import { Refused } from '../shell/Answer'
import { budgetOf, eurosOf } from '../words/budget'
import { money, plural } from '../words/format'
import { usePlanDirectorySearchMutation, useStartDirectorySearchMutation } from './directoryApi'
import { planText } from './directoryText'
import { LookUpField } from './LookUpField'

/** Which businesses are wanted, and what that comes to before anything is paid. */
export function NewSearchForm({ listId, directories }: { listId: string; directories: readonly Connection[] }) {
  const [provider, setProvider] = useState(directories[0]?.provider ?? '')
  const [trade, setTrade] = useState<Named | null>(null)
  const [place, setPlace] = useState<Named | null>(null)
  const [plan, planned] = usePlanDirectorySearchMutation()
  const choose = (chosen: { trade: Named | null; place: Named | null }) => {
    setTrade(chosen.trade)
    setPlace(chosen.place)
    planned.reset()
    const { trade, place } = chosen
    if (trade && place) void plan({ params: { listId }, body: { provider, trade, place } })
  }
  return (
    <div className="flex flex-col gap-4">
      <h1>Businesses from a directory</h1>
      <p className="text-soft">
        A trade and a place, and the businesses there become a batch: name, number, address and site. How many there are
        and what they cost is told before anything is paid.
      </p>
      {directories.length > 1 ? (
        <SelectField
          label="Directory"
          value={provider}
          onChange={(event) => {
            setProvider(event.target.value)
            choose({ trade: null, place: null })
          }}
        >
          {directories.map((one) => (
            <option key={one.provider} value={one.provider}>
              {one.name}
            </option>
          ))}
        </SelectField>
      ) : null}
      <div key={provider} className="grid grid-cols-2 gap-4">
        <LookUpField
          provider={provider}
          what="trades"
          label="Trade"
          hint="Type a few letters and choose."
          value={trade}
          onChange={(value) => choose({ trade: value, place })}
        />
        <LookUpField
          provider={provider}
          what="places"
          label="Place"
          hint="A town or a country."
          value={place}
          onChange={(value) => choose({ trade, place: value })}
        />
      </div>
      {planned.isLoading ? <p role="status">Asking how many there are …</p> : null}
      <Refused by={[planned]} />
      {planned.data && trade && place ? (
        <Agreeing
          key={`${trade.code} ${place.code}`}
          listId={listId}
          question={{ provider, trade, place }}
          plan={planned.data}
        />
      ) : null}
    </div>
  )
}

type Plan = NonNullable<ReturnType<typeof usePlanDirectorySearchMutation>[1]['data']>

/** The amount that is agreed to, and the start. */
function Agreeing({
  listId,
  question,
  plan,
}: {
  listId: string
  question: { provider: string; trade: Named; place: Named }
  plan: Plan
}) {
  const navigate = useNavigate()
  const [start, started] = useStartDirectorySearchMutation()
  const [name, setName] = useState(`${question.trade.name}, ${question.place.name}`)
  const [most, setMost] = useState(() => eurosOf(plan.most))
  const budget = budgetOf(most)
  const wanted = plan.total - plan.leftOut
  const problem =
    budget === null
      ? 'An amount such as 12.50.'
      : budget < plan.price
        ? `Less than one charge, ${money(plan.price)}.`
        : undefined
  return (
    <section aria-label="Before it starts" className="rounded-small border border-line bg-surface px-4 py-3">
      <ul className="flex flex-col gap-1">
        {planText(plan).map((line) => (
          <li key={line}>{line}</li>
        ))}
      </ul>
      {wanted === 0 ? null : (
        <form
          onSubmit={async (event) => {
            event.preventDefault()
            if (budget === null || problem) return
            const made = await start({ params: { listId }, body: { ...question, name, budget } })
            if (made.data) navigate(`/lists/${listId}/bring/directory/${made.data.id}`)
          }}
        >
          <p className="pt-3">
            <span className="num block text-[24px] font-bold leading-8">{money(plan.most)}</span>
            <span className="text-soft">at most, for {plural(wanted, 'business', 'businesses')}.</span>
          </p>
          <Refused by={[started]} />
          <div className="flex items-start gap-3 pt-3">
            <div className="flex-1">
              <TextField
                label="Name of the batch"
                value={name}
                required
                onChange={(event) => setName(event.target.value)}
              />
            </div>
            <div className="w-36">
              <TextField
                label="Not more than, €"
                inputMode="decimal"
                value={most}
                error={problem}
                onChange={(event) => setMost(event.target.value)}
              />
            </div>
          </div>
          <div className="pt-3">
            <Button
              type="submit"
              look="main"
              disabled={started.isLoading || name.trim() === '' || problem !== undefined}
            >
              Fetch {plural(wanted, 'business', 'businesses')}
            </Button>
          </div>
        </form>
      )}
    </section>
  )
}

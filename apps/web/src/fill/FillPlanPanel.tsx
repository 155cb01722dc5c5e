import type { FillEstimate } from '@upper-field/contract'
import { WANTS, type Want } from '@upper-field/core/fill'
import { useState } from 'react'
import { Button, ButtonLink } from '../kit/Button'
import { TextField } from '../kit/Field'
import { Refused, Unanswered } from '../shell/Answer'
import { JobLine } from '../shell/JobStrip'
import { useListView } from '../shell/useListView'
import { budgetOf, DEFAULT_BUDGET } from '../words/budget'
import { WANT } from '../words/fill'
import { count, money, plural } from '../words/format'
import { BeforeStart } from './BeforeStart'
import { KnownOfThem } from './KnownOfThem'
import { LawfulRegions } from './LawfulRegions'
import { NewBatches } from './NewBatches'
import { NewPrices } from './NewPrices'
import { mistakesIn, type PlanDraft } from './plan'
import { TriedSome } from './TriedSome'
import { useFilling } from './useFilling'

interface PlanProps {
  readonly plan: PlanDraft
  readonly setPlan: (plan: PlanDraft) => void
}

/** So many are tried first. */
const TRY = 25

/** The plan of a fill: what is wanted, what counts, and the most it can cost, before a provider is asked. */
export function FillPlanPanel({ plan, setPlan }: PlanProps) {
  const { listId, text: filter } = useListView()
  const filling = useFilling(plan)
  const { estimate, asked, job, isBusy, mayStart } = filling
  const [budgetText, setBudgetText] = useState(DEFAULT_BUDGET)
  /** How many are about to be asked about: all, or so many. */
  const [starting, setStarting] = useState<'all' | number | null>(null)
  if (!estimate) return <Unanswered of={[asked]} what="the plan" />
  const budget = budgetOf(budgetText)
  const isRight = budget !== null && Object.keys(mistakesIn(plan)).length === 0
  const mayAsk = isRight && estimate.wanting > 0 && !isBusy && !filling.isStarting && !filling.isCounting
  const tried = Math.min(TRY, estimate.wanting)
  return (
    <div className="flex flex-col gap-3">
      <h2>The plan</h2>
      <Refused by={[asked]} />
      <Wanted plan={plan} setPlan={setPlan} estimate={estimate} />
      <p aria-busy={filling.isCounting} className={filling.isCounting ? 'opacity-55' : ''}>
        {plural(estimate.wanting, 'contact')} {filter === '' ? '' : 'of those chosen '}
        {estimate.wanting === 1 ? 'lacks' : 'lack'} it. Asking everybody about{' '}
        {estimate.wanting === 1 ? 'it' : 'each of them'} could cost {money(estimate.most)}.
        {estimate.expected ? (
          <>
            {' '}
            By the sample: about <span className="num font-semibold">{count(estimate.expected.usable)}</span> usable for{' '}
            <span className="num font-semibold">{money(estimate.expected.cost)}</span>.
          </>
        ) : null}
      </p>
      <details>
        <summary className="cursor-pointer text-[13.5px]">What is known of them</summary>
        <KnownOfThem estimate={estimate} />
      </details>
      <TextField
        label="Budget in euros"
        inputMode="decimal"
        value={budgetText}
        onChange={(event) => setBudgetText(event.target.value)}
        error={budget !== null ? undefined : 'A sum above 0, such as 25, 12.50 or 1000.'}
        hint="Never passed: what an asking may cost is set aside before it."
      />
      <Accepted plan={plan} setPlan={setPlan} />
      <Limits plan={plan} setPlan={setPlan} />
      <LawfulRegions leftOut={estimate.leftOut['no-lawful-basis'] ?? 0} />
      {mayStart ? <NewBatches plan={plan} isRight={Object.keys(mistakesIn(plan)).length === 0} /> : null}
      {mayStart ? (
        <>
          <Button look="main" disabled={!mayAsk} onClick={() => setStarting('all')}>
            Fill {plural(estimate.wanting, 'contact')} · at most {money(Math.min(estimate.most, budget ?? 0))}
          </Button>
          <Button disabled={!mayAsk || estimate.wanting <= TRY} onClick={() => setStarting(TRY)}>
            Try {count(tried)} first
          </Button>
        </>
      ) : null}
      {starting !== null && budget !== null ? (
        <BeforeStart
          plan={plan}
          filling={filling}
          estimate={estimate}
          budget={budget}
          sample={starting === 'all' ? null : starting}
          onClose={() => setStarting(null)}
        />
      ) : null}
      {job ? (
        <section aria-label="Latest fill" className="border-t border-line pt-3">
          <NewPrices />
          <JobLine job={job} />
        </section>
      ) : null}
      <TriedSome />
      <p className="border-t border-line pt-3 text-soft">
        What a provider found and we did not take is kept with its reason. Some answer late; nothing waits for them.
      </p>
      <ButtonLink to={`/lists/${listId}/split`}>Next: split by channel</ButtonLink>
    </div>
  )
}

function Wanted({ plan, setPlan, estimate }: PlanProps & { estimate: FillEstimate }) {
  const toggle = (want: Want) => {
    const wants = WANTS.filter((one) => (one === want) !== plan.wants.includes(one))
    setPlan({ ...plan, wants })
  }
  return (
    <fieldset>
      <legend className="pb-1 font-semibold">Wanted</legend>
      <div className="grid grid-cols-[auto_auto] gap-x-3 gap-y-0.5 text-[14px]">
        {WANTS.map((want) => (
          <label key={want} className="flex min-h-7 items-center gap-1.5 whitespace-nowrap">
            <input
              type="checkbox"
              className="size-4 accent-moss"
              checked={plan.wants.includes(want)}
              disabled={plan.wants.length === 1 && plan.wants[0] === want}
              onChange={() => toggle(want)}
            />
            <span>{WANT[want]}</span>
            {estimate.lacking[want] === undefined ? null : (
              <span className="num text-[13px] text-soft">{count(estimate.lacking[want])}</span>
            )}
          </label>
        ))}
      </div>
    </fieldset>
  )
}

/** What counts as accepted. */
function Accepted({ plan, setPlan }: PlanProps) {
  const wantsAddress = plan.wants.some((want) => want.endsWith('email'))
  return (
    <>
      <Check
        isOn={plan.checksLines}
        onChange={(checksLines) => setPlan({ ...plan, checksLines })}
        title="Check each line found"
        more="Accepted only when the register calls it a mobile and not out of service."
      />
      {wantsAddress ? (
        <Check
          isOn={plan.checksAddresses}
          onChange={(checksAddresses) => setPlan({ ...plan, checksAddresses })}
          title="Check each address found"
          more="Accepted only when the verifier says that it takes mail; others are kept as risky."
        />
      ) : null}
    </>
  )
}

function Check(props: { isOn: boolean; onChange: (isOn: boolean) => void; title: string; more: string }) {
  const { isOn, onChange, title, more } = props
  return (
    <label className="flex items-start gap-2">
      <input
        type="checkbox"
        checked={isOn}
        onChange={(event) => onChange(event.target.checked)}
        className="mt-1 size-4 accent-moss"
      />
      <span>
        {title}
        <span className="block text-[13px] text-soft">{more}</span>
      </span>
    </label>
  )
}

function Limits({ plan, setPlan }: PlanProps) {
  const mistakes = mistakesIn(plan)
  return (
    <details className="border-t border-line pt-2">
      <summary className="cursor-pointer font-semibold">Limits</summary>
      <div className="flex flex-col gap-2 pt-2">
        <TextField
          label="At most for one contact, in euros"
          inputMode="decimal"
          value={plan.perContact}
          onChange={(event) => setPlan({ ...plan, perContact: event.target.value })}
          error={mistakes.perContact}
        />
        <TextField
          label="At most on one day, in euros"
          inputMode="decimal"
          value={plan.perDay}
          onChange={(event) => setPlan({ ...plan, perDay: event.target.value })}
          error={mistakes.perDay}
          hint="The run rests then and goes on the next day."
        />
        <TextField
          label="Not asked again within days"
          inputMode="numeric"
          value={plan.notAgainDays}
          onChange={(event) => setPlan({ ...plan, notAgainDays: event.target.value })}
          error={mistakes.notAgainDays}
          hint="A provider that had no answer about a contact lately has none today."
        />
        <Check
          isOn={plan.alsoDoubtful}
          onChange={(alsoDoubtful) => setPlan({ ...plan, alsoDoubtful })}
          title="Also whom we are not sure of"
          more="Who has a mobile that was never checked, or an address that may take no mail."
        />
      </div>
    </details>
  )
}

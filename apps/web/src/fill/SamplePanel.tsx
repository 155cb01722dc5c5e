import type { FillSample, SampledOrder } from '@upper-field/contract'
import { useServiceNames } from '../connections/useConnected'
import { Button } from '../kit/Button'
import { TextField } from '../kit/Field'
import { budgetOf } from '../words/budget'
import { count, money } from '../words/format'
import { eachOf, isSameOrder, plansWorth } from './sampleText'

interface SamplePanelProps {
  readonly sample: FillSample
  readonly chosen: SampledOrder
  readonly onChoose: (plan: SampledOrder) => void
  readonly onTake: (order: readonly string[]) => void
  readonly budgetText: string
  readonly setBudgetText: (text: string) => void
}

/** The plan that is chosen: what it would bring and cost, beside today's. */
export function SamplePanel({ sample, chosen, onChoose, onTake, budgetText, setBudgetText }: SamplePanelProps) {
  const named = useServiceNames()
  const plans = plansWorth(sample)
  const title = plans.find(({ plan }) => isSameOrder(plan.order, chosen.order))?.title ?? 'A plan on the curve'
  const each = eachOf(chosen)
  const todays = sample.today && eachOf(sample.today)
  const saved = sample.today ? sample.today.cost.value - chosen.cost.value : null
  return (
    <div className="flex flex-col gap-3">
      <h2>{title}</h2>
      <p className="text-soft">{chosen.order.map(named).join(', ')}</p>
      <dl className="grid grid-cols-[110px_minmax(0,1fr)] gap-y-1">
        <Figure
          name="Usable mobiles"
          value={count(chosen.usable.value)}
          range={`${count(chosen.usable.low)} to ${count(chosen.usable.high)}`}
        />
        <Figure
          name="Cost"
          value={money(chosen.cost.value)}
          range={`${money(chosen.cost.low)} to ${money(chosen.cost.high)}`}
        />
        <Figure name="Each usable" value={each === null ? '–' : money(each)} />
        {todays ? <Figure name="Today’s order" value={money(todays)} /> : null}
        {saved !== null && saved > 0 ? <Figure name="Saved" value={money(saved)} /> : null}
      </dl>
      <p className="text-[13px] text-soft">The ranges hold nine of ten samples like this one.</p>
      <div className="flex flex-col items-start gap-1 border-t border-line pt-3">
        <h3>Compare</h3>
        {plans.map(({ title, plan }) => (
          <button
            key={title}
            type="button"
            aria-pressed={isSameOrder(plan.order, chosen.order)}
            className="flex w-full justify-between gap-2 rounded-small px-2 py-1 text-left aria-pressed:bg-lichen hover:bg-lichen"
            onClick={() => onChoose(plan)}
          >
            <span>{title}</span>
            <span className="num">{money(plan.cost.value)}</span>
          </button>
        ))}
      </div>
      <TextField
        label="Budget in euros"
        inputMode="decimal"
        value={budgetText}
        onChange={(event) => setBudgetText(event.target.value)}
        error={budgetOf(budgetText) === null ? 'A sum above 0, such as 25, 12.50 or 1000.' : undefined}
      />
      <Button look="main" onClick={() => onTake(chosen.order)}>
        Take this as the plan
      </Button>
      <p className="text-[13px] text-soft">
        Nothing is asked yet. The sample cost {money(sample.spent)}; what it found is kept.
      </p>
    </div>
  )
}

function Figure({ name, value, range }: { name: string; value: string; range?: string }) {
  return (
    <>
      <dt>{name}</dt>
      <dd className="num">
        <span className="font-semibold">{value}</span>
        {range ? <span className="pl-2 text-soft">{range}</span> : null}
      </dd>
    </>
  )
}

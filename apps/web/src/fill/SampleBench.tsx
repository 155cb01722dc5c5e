import type { FillSample, SampledOrder } from '@upper-field/contract'
import { lazy, Suspense } from 'react'
import { useServiceNames } from '../connections/useConnected'
import { Loading } from '../kit/Notice'
import { BenchTitle } from '../shell/Bench'
import { count, money } from '../words/format'
import { isSameOrder, placeIn } from './sampleText'

const SampleChart = lazy(async () => ({ default: (await import('./SampleChart')).SampleChart }))

interface SampleBenchProps {
  readonly sample: FillSample
  readonly chosen: SampledOrder
  readonly onChoose: (plan: SampledOrder) => void
  /** More answers are still to come. */
  readonly isGoingOn: boolean
}

/** What money finds: each plan on the curve can be chosen, in the picture and in the list below it. */
export function SampleBench({ sample, chosen, onChoose, isGoingOn }: SampleBenchProps) {
  const { curve, choices, contacts, wanting } = sample
  return (
    <div className="min-h-0 overflow-y-auto">
      <BenchTitle title="What money finds">
        usable mobiles among {count(wanting)} contacts, for {count(choices.length)} choices of services replayed on{' '}
        {count(contacts)} who were asked of everyone{isGoingOn ? ' so far' : ''}
      </BenchTitle>
      <Suspense fallback={<Loading what="the picture" />}>
        <SampleChart sample={sample} chosen={chosen} onChoose={onChoose} />
      </Suspense>
      <Services sample={sample} chosen={chosen} />
      <Curve curve={curve} chosen={chosen} onChoose={onChoose} />
    </div>
  )
}

function Curve({
  curve,
  chosen,
  onChoose,
}: { curve: readonly SampledOrder[] } & Pick<SampleBenchProps, 'chosen' | 'onChoose'>) {
  const named = useServiceNames()
  return (
    <fieldset className="py-4">
      <legend className="pt-4 pb-1 font-semibold">Plans on the curve</legend>
      {curve.map((plan) => (
        <label
          key={plan.order.join()}
          className="grid grid-cols-[20px_minmax(0,1fr)_70px_80px] items-center gap-2 border-t border-line py-1"
        >
          <input
            type="radio"
            name="plan"
            className="size-4 accent-moss"
            checked={isSameOrder(plan.order, chosen.order)}
            onChange={() => onChoose(plan)}
          />
          <span>{plan.order.map(named).join(', ')}</span>
          <span className="num text-right">{count(plan.usable.value)}</span>
          <span className="num text-right">{money(plan.cost.value)}</span>
        </label>
      ))}
    </fieldset>
  )
}

const percent = (part: number, of: number): string => (of === 0 ? '–' : `${Math.round((100 * part) / of)} %`)

function Services({ sample, chosen }: { sample: FillSample; chosen: SampledOrder }) {
  const named = useServiceNames()
  return (
    <table className="mt-4 w-full">
      <thead className="text-left text-[13px] text-soft">
        <tr className="border-b border-edge">
          <th className="py-1">Service</th>
          <th className="text-right">Found by it alone</th>
          <th className="text-right">Adds to the others</th>
          <th className="text-right">Somebody else’s</th>
          <th className="pl-6">In this plan</th>
          <th>Where it is good</th>
        </tr>
      </thead>
      <tbody>
        {sample.providers.map(({ provider, asked, usable, onlyHere, somebodyElse, goodIn }) => (
          <tr key={provider} className="border-b border-line">
            <td className="py-1 font-semibold">{named(provider)}</td>
            <td className="num text-right">{percent(usable, asked)}</td>
            <td className="num text-right">{percent(onlyHere, sample.contacts)}</td>
            <td className="num text-right">{percent(somebodyElse, asked)}</td>
            <td className="pl-6">{placeIn(chosen.order, provider)}</td>
            <td>{goodIn.slice(0, 5).join(', ') || <span className="text-soft">alike everywhere</span>}</td>
          </tr>
        ))}
      </tbody>
    </table>
  )
}

import type { FillEstimate } from '@upper-field/contract'
import { problemText } from '../api'
import { useProviders, useServiceNames } from '../connections/useConnected'
import { Button } from '../kit/Button'
import { Dialog } from '../kit/Dialog'
import { Notice } from '../kit/Notice'
import { LEFT_OUT_OF_FILL, WANT } from '../words/fill'
import { count, countryName, money, plural } from '../words/format'
import { priceText } from '../words/services'
import { KnownOfThem } from './KnownOfThem'
import { expectedWithin, namedInPlan, type PlanDraft } from './plan'
import type { Filling } from './useFilling'

interface BeforeStartProps {
  readonly plan: PlanDraft
  readonly filling: Filling
  readonly estimate: FillEstimate
  readonly budget: number
  /** So many at random; null for all. */
  readonly sample: number | null
  readonly onClose: () => void
}

/** The one page before a fill: who is asked about what, in which order, who is left out and why, and what it costs. */
export function BeforeStart({ plan, filling, estimate, budget, sample, onClose }: BeforeStartProps) {
  const named = useServiceNames()
  const asked = sample ?? estimate.wanting
  const share = estimate.wanting === 0 ? 0 : asked / estimate.wanting
  const most = Math.min(budget, Math.ceil(estimate.most * share))
  const expected = estimate.expected && expectedWithin(estimate.expected, share, most)
  const start = async () => {
    if (await filling.start({ budget: most, sample })) onClose()
  }
  return (
    <Dialog
      title={sample === null ? 'Before the fill' : `Before ${count(asked)} are tried`}
      isOpen
      isWide
      onClose={onClose}
    >
      <div className="flex flex-col gap-3">
        <p>
          <span className="num font-semibold">{plural(asked, 'contact')}</span>
          {sample === null ? '' : `, taken at random of ${count(estimate.wanting)},`} {asked === 1 ? 'lacks' : 'lack'}{' '}
          {plan.wants.map((want) => WANT[want].toLowerCase()).join(' or ')}.
        </p>
        <Asked plan={plan} estimate={estimate} />
        {plan.branches.map(({ countries, order }) => (
          <p key={countries.join()}>
            <span className="font-semibold">{countries.map(countryName).join(', ')}:</span>{' '}
            {order.map(named).join(', ')}
          </p>
        ))}
        <Left estimate={estimate} />
        <KnownOfThem estimate={estimate} />
        <p className="text-[13px] text-soft">
          Lately asked: they had no answer about these. Lacks input: what they must be told is not known.
        </p>
        <dl className="grid grid-cols-[150px_minmax(0,1fr)] gap-y-1 border-t border-line pt-3">
          <dt>At most</dt>
          <dd className="num font-semibold">{money(most)}</dd>
          <dt>Expected</dt>
          <dd>
            {expected ? (
              <span className="num font-semibold">
                {plural(expected.usable, 'usable', 'usable')} for {money(expected.cost)}
              </span>
            ) : (
              <span className="text-soft">not known: nobody was asked of everyone yet in this order</span>
            )}
          </dd>
        </dl>
        {filling.startError ? <Notice tone="bad">{problemText(filling.startError)}</Notice> : null}
        <div className="flex justify-end gap-2">
          <Button onClick={onClose}>Cancel</Button>
          <Button look="main" disabled={filling.isStarting} onClick={() => void start()}>
            Start · at most {money(most)}
          </Button>
        </div>
      </div>
    </Dialog>
  )
}

function Asked({ plan, estimate }: { plan: PlanDraft; estimate: FillEstimate }) {
  const services = useProviders() ?? []
  return (
    <table className="w-full text-left">
      <thead className="text-[13px] text-soft">
        <tr className="border-b border-edge">
          <th className="py-1 font-normal">Asked in turn</th>
          <th className="pl-3 font-normal">Price</th>
          <th className="pl-3 text-right font-normal">Can be asked</th>
          <th className="pl-3 text-right font-normal">Lately asked</th>
          <th className="pl-3 text-right font-normal">Lacks input</th>
        </tr>
      </thead>
      <tbody>
        {namedInPlan(plan).map((id) => {
          const service = services.find(({ provider }) => provider === id)
          const counts = estimate.providers.find(({ provider }) => provider === id)
          return (
            <tr key={id} className="border-b border-line">
              <td className="py-1 font-semibold">{service?.name ?? id}</td>
              <td className="pl-3 text-soft">{service ? priceText(service) : ''}</td>
              <td className="num text-right">{count(counts?.askable ?? 0)}</td>
              <td className="num text-right">{count(counts?.askedLately ?? 0)}</td>
              <td className="num text-right">{count(counts?.lacksInput ?? 0)}</td>
            </tr>
          )
        })}
      </tbody>
    </table>
  )
}

/** Who is left out, and why. */
function Left({ estimate }: { estimate: FillEstimate }) {
  const left = Object.entries(estimate.leftOut).filter(([, n]) => n > 0)
  if (left.length === 0) return <p className="text-soft">Nobody who lacks it is left out.</p>
  return (
    <ul>
      {left.map(([why, n]) => (
        <li key={why}>
          <span className="num font-semibold">{count(n)}</span> left out:{' '}
          {LEFT_OUT_OF_FILL[why as keyof typeof LEFT_OUT_OF_FILL]}
        </li>
      ))}
    </ul>
  )
}

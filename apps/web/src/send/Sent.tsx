import type { AudienceDetail } from '@upper-field/contract'
import { deliveryText, deliveryTime } from './audienceText'

/** What was sent so far, the latest first, with what the network refused of it. */
export function Sent({ audience: { deliveries } }: { audience: AudienceDetail }) {
  if (deliveries.length === 0) return null
  return (
    <section aria-label="Sent so far">
      <h3 className="pb-1 text-[14px]">Sent so far</h3>
      <ul>
        {deliveries.map((one) => (
          <li key={one.id} className="border-t border-line py-1.5">
            <span className={one.state === 'refused' || one.state === 'failed' ? 'text-beet' : ''}>
              {deliveryText(one)}
            </span>
            <span className="block text-[13px] text-soft">{deliveryTime(one)}</span>
            {one.refusal ? (
              <span className="block text-[13px] text-beet">
                {one.refusal.says} {one.refusal.remedy}
              </span>
            ) : null}
          </li>
        ))}
      </ul>
    </section>
  )
}

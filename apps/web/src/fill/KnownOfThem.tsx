import type { FillEstimate } from '@upper-field/contract'
import { PERSON_INPUTS } from '@upper-field/core/fill'
import { count } from '../words/format'
import { ACCEPTS } from '../words/services'

/** Of how many it is known what a provider has to be told. */
export function KnownOfThem({ estimate: { known, wanting } }: { estimate: FillEstimate }) {
  if (wanting === 0) return null
  return (
    <section aria-label="What is known of them">
      <h3 className="pb-1">What is known of them</h3>
      <ul className="text-[13.5px]">
        {PERSON_INPUTS.map((input) => (
          <li key={input} className="flex justify-between first-letter:uppercase">
            <span className="first-letter:uppercase">{ACCEPTS[input]}</span>
            <span>
              <span className="num">{count(known[input])}</span>
              <span className="text-soft"> · {count(wanting - known[input])} lack it</span>
            </span>
          </li>
        ))}
      </ul>
      <p className="pt-0.5 text-[13px] text-soft">
        A full name is put together from its parts, a domain taken from the site or a work address.
      </p>
    </section>
  )
}

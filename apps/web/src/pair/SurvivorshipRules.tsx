import type { PairState } from '@upper-field/contract'
import { SURVIVOR_PARTS, SURVIVORSHIP_RULES, type SurvivorshipRule } from '@upper-field/core/pair'
import { useState } from 'react'
import { useChangeSurvivorshipMutation } from '../api'
import { Button } from '../kit/Button'
import { useMayChange } from '../people/useRole'
import { Refused } from '../shell/Answer'
import { useListView } from '../shell/useListView'
import { PART, RULE } from '../words/pairing'

/** Whose values come first in every contact that is made of several rows. */
export function SurvivorshipRules({ state }: { state: PairState }) {
  const { listId } = useListView()
  const mayChange = useMayChange()
  const [rules, setRules] = useState(state.survivorship)
  const [change, changing] = useChangeSurvivorshipMutation()
  const isChanged = SURVIVOR_PARTS.some((part) => rules[part] !== state.survivorship[part])
  return (
    <form
      aria-label="Whose values come first"
      onSubmit={(event) => {
        event.preventDefault()
        void change({ params: { listId }, body: rules })
      }}
    >
      <h3 className="pb-1">Whose values come first</h3>
      {SURVIVOR_PARTS.map((part) => (
        <label key={part} className="flex items-center justify-between gap-2 border-t border-line py-1">
          <span>{PART[part]}</span>
          <select
            value={rules[part]}
            disabled={!mayChange}
            onChange={(event) => setRules({ ...rules, [part]: event.target.value as SurvivorshipRule })}
            className="min-h-7 w-[58%] rounded-small border border-edge bg-surface px-1"
          >
            {SURVIVORSHIP_RULES.map((rule) => (
              <option key={rule} value={rule}>
                {RULE[rule]}
              </option>
            ))}
          </select>
        </label>
      ))}
      <Refused by={[changing]} />
      {isChanged ? (
        <Button type="submit" className="mt-2 w-full" disabled={changing.isLoading}>
          Put the joined contacts together anew
        </Button>
      ) : null}
      <p className="pt-1 text-[13px] text-soft">
        What that row leaves blank is filled from the others. A value that a person chose stays chosen.
      </p>
    </form>
  )
}

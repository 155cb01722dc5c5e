import type { PairItem, PairSide } from '@upper-field/contract'
import { partSources, type SurvivorPart, type Survivorship, sourceOf } from '@upper-field/core/pair'
import { useMemo, useState } from 'react'

/** Whose value of each part comes first when two contacts are joined, by rule or as a person chose. */
export interface Survivor {
  /** Only what a person chose, by the contact it is taken from. */
  readonly chosen: Partial<Record<SurvivorPart, number>>
  sourceOf(part: SurvivorPart): number | undefined
  choose(part: SurvivorPart, contactId: number): void
  /** Takes a part from the other contact. */
  flip(part: SurvivorPart): void
}

export function useSurvivor({ sides }: PairItem, rules: Survivorship): Survivor {
  const [chosen, setChosen] = useState<Partial<Record<SurvivorPart, number>>>({})
  const sources = useMemo(() => partSources(sides.map(asRow)), [sides])
  const byRule = (part: SurvivorPart) => sourceOf(part, sources, { rules, chosen: new Map() })?.id
  const from = (part: SurvivorPart) => {
    const id = chosen[part]
    return id ?? byRule(part)
  }
  const choose = (part: SurvivorPart, contactId: number) => {
    const { [part]: _, ...others } = chosen
    setChosen(contactId === byRule(part) ? others : { ...chosen, [part]: contactId })
  }
  return {
    chosen,
    sourceOf: from,
    choose,
    flip: (part) => {
      const other = sources.find(({ id }) => id !== from(part))
      if (other && sources.every(({ textOf }) => textOf(part) !== '')) choose(part, other.id)
    },
  }
}

const asRow = (side: PairSide) => ({
  id: side.contactId,
  values: {
    fullName: side.fullName,
    company: side.company,
    domain: side.domain,
    title: side.title,
    city: side.city,
    postalCode: side.postalCode,
    country: side.country,
    profile: side.profile,
  },
  numbers: side.numbers,
  emails: side.emails.map((address) => ({ address })),
})

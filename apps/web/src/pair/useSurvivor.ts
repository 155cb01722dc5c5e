import type { PairSide } from '@upper-field/contract'
import { partSources, type SurvivorPart, type Survivorship, sourceOf } from '@upper-field/core/pair'
import { useMemo, useState } from 'react'

/** Whose value of each part comes first when contacts are joined, by rule or as a person chose. */
export interface Survivor {
  /** Only what a person chose, by the contact it is taken from. */
  readonly chosen: Partial<Record<SurvivorPart, number>>
  sourceOf(part: SurvivorPart): number | undefined
  choose(part: SurvivorPart, contactId: number): void
  /** Takes a part from the next contact that says something of it. */
  flip(part: SurvivorPart): void
}

export function useSurvivor(sides: readonly PairSide[], rules: Survivorship): Survivor {
  const [chosen, setChosen] = useState<Partial<Record<SurvivorPart, number>>>({})
  const sources = useMemo(() => partSources(sides.map(asRow)), [sides])
  const byRule = (part: SurvivorPart) => sourceOf(part, sources, { rules, chosen: new Map() })?.id
  const from = (part: SurvivorPart) => {
    const id = chosen[part]
    // Somebody who was chosen may not be joined any more.
    return sources.some((one) => one.id === id) ? id : byRule(part)
  }
  const choose = (part: SurvivorPart, contactId: number) => {
    const { [part]: _, ...others } = chosen
    setChosen(contactId === byRule(part) ? others : { ...chosen, [part]: contactId })
  }
  return {
    chosen: Object.fromEntries(Object.entries(chosen).filter(([, id]) => sources.some((one) => one.id === id))),
    sourceOf: from,
    choose,
    flip: (part) => {
      const filled = sources.filter(({ textOf }) => textOf(part) !== '')
      const next = filled[(filled.findIndex(({ id }) => id === from(part)) + 1) % filled.length]
      if (next) choose(part, next.id)
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
    street: side.street,
    birthDate: side.birthDate,
    country: side.country,
    profile: side.profile,
  },
  numbers: side.numbers,
  emails: side.emails.map((address) => ({ address })),
})

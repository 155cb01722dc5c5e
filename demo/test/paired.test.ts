import { beforeAll, describe, expect, it } from '@jest/globals'
import { type Paired, pairContacts } from '@upper-field/core/pair'
import { type KnownContact, knownContacts } from './pairTruth'

let known: KnownContact[]
let paired: Paired

beforeAll(async () => {
  known = await knownContacts(6000)
  paired = pairContacts(known.map(({ input }) => input))
}, 60_000)

const pairsOf = (members: readonly number[]): string[] =>
  members.flatMap((a, i) => members.slice(i + 1).map((b) => `${a}/${b}`))

describe('the demo, paired', () => {
  it('joins by itself almost nobody wrongly, and finds almost everybody for a person to decide', () => {
    const byWho = new Map<string, number[]>()
    for (const [at, { who }] of known.entries()) byWho.set(who, [...(byWho.get(who) ?? []), at])
    const truth = new Set([...byWho.values()].flatMap(pairsOf))
    const joined = new Set(paired.groups.flatMap(({ members }) => pairsOf(members)))
    const found = new Set([...joined, ...[...paired.toDecide].map(({ a, b }) => `${a}/${b}`)])
    const right = [...joined].filter((pair) => truth.has(pair)).length
    const reached = [...truth].filter((pair) => found.has(pair)).length
    console.log(
      `true pairs ${truth.size}; joined ${joined.size}, precision ${(right / joined.size).toFixed(4)}; with ${paired.toDecide.length} to decide, recall ${(reached / truth.size).toFixed(4)}`,
    )
    expect(right / joined.size).toBeGreaterThanOrEqual(0.995)
    expect(reached / truth.size).toBeGreaterThanOrEqual(0.97)
  })

  it('never joins two people of different names by itself', () => {
    const people = (members: readonly number[]) =>
      new Set(members.map((at) => known[at]?.input.familyName.toLowerCase()).filter(Boolean))
    expect(paired.groups.filter(({ members }) => people(members).size > 1)).toEqual([])
  })
})

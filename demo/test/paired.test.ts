import { beforeAll, describe, expect, it } from '@jest/globals'
import { type Paired, pairContacts } from '@upper-field/core/pair'
import { type KnownContact, knownContacts } from './pairTruth'

let known: KnownContact[]
let paired: Paired

beforeAll(async () => {
  known = await knownContacts(6000)
  paired = pairContacts(known.map(({ input }) => input))
})

const pairsOf = (members: readonly number[]): string[] =>
  members.flatMap((a, i) => members.slice(i + 1).map((b) => `${a}/${b}`))

/** Pairs of two people, by position, that have something in common. */
function twoOf(keysOf: (one: KnownContact) => readonly string[]): (readonly [number, number])[] {
  const holders = new Map<string, number[]>()
  for (const [at, one] of known.entries())
    for (const key of keysOf(one)) holders.set(key, [...(holders.get(key) ?? []), at])
  return [...holders.values()].flatMap((members) =>
    members.flatMap((a, i) =>
      members.slice(i + 1).flatMap((b) => (known[a]?.who === known[b]?.who ? [] : [[a, b] as const])),
    ),
  )
}

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

  it('joins no hard negative by itself: colleagues on one switchboard, namesakes in two houses', () => {
    const groupOf = new Map(paired.groups.flatMap(({ members }, group) => members.map((at) => [at, group])))
    const isJoined = (a: number, b: number) => groupOf.has(a) && groupOf.get(a) === groupOf.get(b)
    const colleagues = twoOf((one) => one.input.numbers.filter(({ isMobile }) => !isMobile).map(({ e164 }) => e164))
    const namesakes = twoOf(({ input }) => (input.fullName === '' ? [] : [input.fullName.toLowerCase()])).filter(
      ([a, b]) => known[a]?.input.company !== known[b]?.input.company,
    )
    expect([colleagues.length > 500, namesakes.length > 100]).toEqual([true, true])
    expect([...colleagues, ...namesakes].filter(([a, b]) => isJoined(a, b))).toEqual([])
  })

  it('joins no relatives at one address by itself', () => {
    // An initial may be anybody's.
    const people = known
      .filter(({ input }) => /^\p{L}{3}/u.test(input.givenName) && input.postalCode !== '')
      .slice(0, 400)
    const relatives = people.map(({ input }, i) => {
      const given = people[(i + 7) % people.length]?.input.givenName ?? ''
      return { ...input, givenName: given, fullName: `${given} ${input.familyName}`, emails: [], profile: '' }
    })
    const { groups } = pairContacts([...known.map(({ input }) => input), ...relatives])
    const strangers = groups.flatMap(({ members }) =>
      members.filter((at) => {
        const mine = relatives[at - known.length]
        const kin = people[at - known.length]
        return mine && kin && mine.givenName !== kin.input.givenName && members.includes(known.indexOf(kin))
      }),
    )
    expect(relatives.length).toBe(400)
    expect(strangers).toEqual([])
  })

  it('comes to the same groups and the same pairs to decide, however the rows stand', () => {
    const last = known.length - 1
    const { groups, toDecide } = pairContacts(known.map(({ input }) => input).reverse())
    const turned = groups.map(({ members }) => members.map((at) => last - at).sort((a, b) => a - b))
    expect(turned.sort((a, b) => (a[0] ?? 0) - (b[0] ?? 0))).toEqual(paired.groups.map(({ members }) => members))
    const pairsIn = (pairs: Paired['toDecide'], at: (i: number) => number) =>
      new Set([...pairs].map(({ a, b }) => [at(a), at(b)].sort((x, y) => x - y).join('/')))
    expect(pairsIn(toDecide, (at) => last - at)).toEqual(pairsIn(paired.toDecide, (at) => at))
  })

  it('never joins two people of different names by itself', () => {
    const people = (members: readonly number[]) =>
      new Set(members.map((at) => known[at]?.input.familyName.toLowerCase()).filter(Boolean))
    expect(paired.groups.filter(({ members }) => people(members).size > 1)).toEqual([])
  })
})

import type { Thresholds } from '@upper-field/contract'
import { type Bin, createPairing, type Evidence, type Paired } from '@upper-field/core/pair'
import { contactsIn } from '../contacts/contactsIn'
import type { Db } from '../db/database'
import { num, readRows } from '../db/readRows'
import type { OnPage } from '../jobs/giveUp'
import { keptApart, pairOf } from './keptApart'
import { standingContacts } from './standingContacts'
import type { NewJoin } from './storeJoins'

/**
 * What pairing has found in a list, as it is to be stored. It is plain data: what it was worked out with takes hundreds of
 * megabytes of a large list, and is let go before anything is stored.
 */
export interface FoundPairs {
  readonly listId: string
  /** How many contacts were compared. */
  readonly contacts: number
  /** The members of each group, joined to the first of them. */
  readonly joins: readonly NewJoin[]
  /** What a person has to decide, likeliest first. */
  readonly toDecide: readonly PairToDecide[]
  /** With ids of contacts in place of positions. */
  readonly bins: readonly Bin[]
  /** How many groups there would be from other lines on. */
  readonly groups: readonly { readonly from: number; readonly groups: number }[]
}

export interface PairToDecide {
  readonly a: number
  readonly b: number
  readonly score: number
  readonly key: string
  /** What each field adds to the score, in bits. */
  readonly evidence: readonly Evidence[]
  /** Bits against two contacts picked at random being one person. */
  readonly against: number
}

/** Reads all contacts of a list that stand for themselves, and compares them. */
export async function findPairs(tx: Db, listId: string, thresholds: Thresholds, onPage: OnPage): Promise<FoundPairs> {
  const pairing = createPairing(await contactsIn(tx, [listId]))
  const ids: number[] = []
  for await (const page of standingContacts(tx, listId)) {
    for (const { id, input } of page) {
      ids.push(id)
      pairing.add(input)
    }
    await onPage(ids.length, 'gathering')
  }
  const apart = await keptApart(tx, listId)
  const asked = await askedAbout(tx, listId)
  const isKeptApart = (a: number, b: number) => apart.isPair(ids[a] ?? 0, ids[b] ?? 0)
  const steps = pairing.steps({ thresholds, isKeptApart })
  for (;;) {
    const { done, value } = steps.next()
    if (done) return foundIn(value, { listId, ids, thresholds, asked })
    await onPage(value)
  }
}

/** Pairs that a person has decided: they stay decided, and no pair is asked about twice. */
async function askedAbout(tx: Db, listId: string): Promise<Set<string>> {
  const known = await readRows(tx, { a: num, b: num })`
    select a_id as a, b_id as b from pairs where list_id = ${listId} and decision_id is not null`
  return new Set(known.map(({ a, b }) => pairOf(a, b)))
}

interface Asked {
  readonly listId: string
  /** Ids of the contacts by their positions. */
  readonly ids: readonly number[]
  readonly thresholds: Thresholds
  readonly asked: Set<string>
}

function foundIn(paired: Paired, { listId, ids, thresholds, asked }: Asked): FoundPairs {
  const idAt = (at: number): number => ids[at] ?? 0
  return {
    listId,
    contacts: ids.length,
    joins: paired.groups.flatMap(({ members, score }) => {
      const [survivor = 0, ...others] = members.map(idAt)
      return others.map((member) => ({ survivor, member, kind: 'likeness', key: score.toFixed(1) }))
    }),
    toDecide: toDecideIn(paired, idAt, asked),
    bins: paired.bins.map(({ from, pairs, examples }) => ({
      from,
      pairs,
      examples: examples.map(({ a, b, score }) => ({ a: idAt(a), b: idAt(b), score })),
    })),
    groups: groupsByLine(paired, thresholds),
  }
}

/** The likeliest pairs are kept for a person; nobody decides more. */
const MOST_PAIRS = 20_000

function toDecideIn(paired: Paired, idAt: (at: number) => number, asked: Set<string>): readonly PairToDecide[] {
  const survivors = new Map<number, number>()
  for (const { members } of paired.groups) for (const member of members) survivors.set(member, members[0] ?? member)
  const standing = (at: number): number => idAt(survivors.get(at) ?? at)
  const found: PairToDecide[] = []
  for (const { a, b, score, key } of paired.toDecide) {
    if (found.length === MOST_PAIRS) break
    // A contact that was joined is decided about through the one it was joined to.
    const [one, other] = [Math.min(standing(a), standing(b)), Math.max(standing(a), standing(b))]
    const pair = pairOf(one, other)
    if (one === other || asked.has(pair)) continue
    asked.add(pair)
    const evidence = paired.explain(a, b).map(({ field, level, bits }) => ({ field, level, bits: round(bits) }))
    found.push({ a: one, b: other, score: round(score), key, evidence, against: round(paired.weights.against) })
  }
  return found
}

const round = (bits: number): number => Math.round(bits * 100) / 100

/** Lines on either side of the upper one at which groups are counted, in bits. */
const BESIDE = 12
/** Groups are counted for as many lines as so many pairs allow, one after another. */
const MOST_COUNTED = 400_000

/** How many groups there would be with other upper lines, as far as there is time to count. */
function groupsByLine(paired: Paired, { join, decide }: Thresholds): FoundPairs['groups'] {
  const pairs = paired.bins.filter(({ from }) => from >= decide).reduce((sum, bin) => sum + bin.pairs, 0)
  const lines = Math.max(1, Math.min(2 * BESIDE + 1, Math.floor(MOST_COUNTED / Math.max(1, pairs))))
  const reach = Math.floor(lines / 2)
  return Array.from({ length: 2 * reach + 1 }, (_, i) => Math.round(join) - reach + i)
    .filter((from) => from >= decide)
    .map((from) => ({ from, groups: paired.groupsFrom(from) }))
}

import { isOneBirth } from './births'
import { areWordsCompatible } from './compatibleNames'
import { readWritten, WRITTEN_LINES, type Writing, type Written, writtenAs } from './writtenAs'

/** Contacts that share one exact key (a number or an e-mail). */
export interface SharedKey {
  readonly kind: 'number' | 'email'
  readonly key: string
  readonly holders: readonly KeyHolder[]
}

export interface KeyHolder extends Writing {
  readonly id: number
}

/** A contact that is joined to the one that survives, and the key that says they are one person. */
export interface ExactJoin {
  readonly survivor: number
  readonly member: number
  readonly kind: 'number' | 'email'
  readonly key: string
}

/** Takes shared keys one after another, so that no more of them are kept than there are joins. */
export interface ExactJoiner {
  /** A key that very many hold may come in pieces, one behind the other, its holders in the order of their ids. */
  add(key: SharedKey): void
  joins(): readonly ExactJoin[]
}

/** Pairs that a person took apart are not joined again. */
export interface KeptApart {
  readonly isPair: (a: number, b: number) => boolean
  /** Those who stand in any such pair: the others need not be asked about. */
  readonly isInAny: (id: number) => boolean
}

/**
 * Joins contacts that share an exact key and whose names and birth dates are compatible with all in the group, so
 * that an initial cannot bring two people together, nor one number father and son, nor two houses that answer at one
 * head office. The contact with the lowest id (the first row) survives. Keys are to be added in a fixed order: earlier
 * keys join first. A million rows may have one key: a group knows each way it is written once, and a holder is held
 * against groups it has a word in common with. What twenty thousand different people hold is nobody's own: it joins
 * those who come after them to nobody but them.
 */
export function exactJoiner(apart: KeptApart | null = null): ExactJoiner {
  const groups = new Map<number, Group>()
  const reason = new Map<number, Reason>()
  let current: OpenKey | null = null
  const end = () => {
    for (const group of current?.opened ?? []) if (group.ids.length > 1) close(group)
    current = null
  }
  const openedBy = ({ kind, key }: Reason): OpenKey => {
    if (current?.kind === kind && current.key === key) return current
    end()
    current = { kind, key, seen: createSeen(), opened: new Set() }
    return current
  }
  return {
    add: ({ kind, key, holders }) => {
      const because = { kind, key }
      const { seen, opened } = openedBy(because)
      for (const holder of [...holders].sort((a, b) => a.id - b.id)) {
        // Contacts that stand alone are not remembered: most holders of a key are never joined.
        const known = groups.get(holder.id)
        const mine = known ?? aloneIn(holder)
        if (known) opened.add(known)
        const target = seen.likely(mine).find((group) => canJoin(group, mine, apart))
        if (!target) {
          seen.add(mine)
          continue
        }
        opened.add(target)
        for (const id of target.ids.length === 1 ? target.ids : []) groups.set(id, target)
        for (const id of mine.ids) groups.set(id, target)
        join(target, mine)
        seen.joined(target, mine)
        reason.set(holder.id, because)
      }
    },
    joins: () => {
      end()
      return listJoins(new Set(groups.values()), reason)
    },
  }
}

/** The key whose holders are being taken, and the groups that were opened for it. */
interface OpenKey extends Reason {
  readonly seen: Seen
  readonly opened: Set<Group>
}

/** The key that says that two are one person. */
type Reason = Pick<ExactJoin, 'kind' | 'key'>

/**
 * Contacts that are one person, and the ways they are written, each once. A list of a million has some hundred thousand
 * groups: those that hold no key just now are closed, and then take a quarter of the room.
 */
interface Group {
  ids: number[]
  /** The ways as they were when the group was closed last, one below the other. */
  closed: string
  /** The ways by how they are written, while the group is open. */
  open: Map<string, Written> | null
}

const aloneIn = (holder: KeyHolder): Group => ({ ids: [holder.id], closed: writtenAs(holder), open: null })

function waysOf(group: Group): Map<string, Written> {
  if (group.open) return group.open
  const ways = new Map<string, Written>()
  const lines = group.closed.split('\n')
  for (let at = 0; at < lines.length; at += WRITTEN_LINES) {
    const written = lines.slice(at, at + WRITTEN_LINES).join('\n')
    ways.set(written, readWritten(written))
  }
  group.open = ways
  return ways
}

const FEW = 8

/** An array that has grown keeps room for more, which few groups ever need: a copy has none. */
function close(group: Group): void {
  if (group.open) group.closed = [...group.open.keys()].join('\n')
  group.open = null
  if (group.ids.length <= FEW) group.ids = group.ids.slice()
}

function join(target: Group, mine: Group): void {
  for (const id of mine.ids) target.ids.push(id)
  const ways = waysOf(target)
  for (const [written, way] of waysOf(mine)) ways.set(written, way)
}

/** A holder is held against so many groups at most that have a word in common with it, and those it is written as. */
const MOST_LIKELY = 50
/** Of a key that more different people hold, those who come later are not remembered. */
const MOST_PEOPLE = 20_000

/** The groups of one key so far. */
interface Seen {
  add(group: Group): void
  /** A group went into another of them. */
  joined(target: Group, gone: Group): void
  /** Groups that may be the same person, in the order of their first rows. */
  likely(mine: Group): readonly Group[]
}

function createSeen(): Seen {
  const order = new Map<Group, number>()
  let next = 0
  const byWord = new Map<string, Set<Group>>()
  const byWriting = new Map<string, Group>()
  const put = (word: string, group: Group) => {
    const known = byWord.get(word)
    if (known) known.add(group)
    else byWord.set(word, new Set([group]))
  }
  const note = (group: Group, ways: ReadonlyMap<string, Written>) => {
    for (const [written, { words }] of ways) {
      byWriting.set(written, group)
      for (const word of words.length === 0 ? [NAMELESS] : words) put(word, group)
    }
  }
  return {
    add: (group) => {
      if (order.has(group) || order.size === MOST_PEOPLE) return
      order.set(group, next++)
      note(group, waysOf(group))
    },
    joined: (target, gone) => {
      const at = order.get(gone)
      order.delete(gone)
      for (const { words } of waysOf(gone).values())
        for (const word of words.length === 0 ? [NAMELESS] : words) byWord.get(word)?.delete(gone)
      if (at !== undefined) order.set(target, Math.min(at, order.get(target) ?? at))
      note(target, waysOf(gone))
    },
    likely: (mine) => {
      const found = new Set<Group>()
      for (const [written, { words }] of waysOf(mine)) {
        const same = byWriting.get(written)
        if (same) found.add(same)
        // Nobody has a word in common with whoever has no name, and everybody may be one with them.
        if (words.length === 0) take(order.keys(), found)
        else for (const word of [NAMELESS, ...words]) take(byWord.get(word) ?? [], found)
      }
      found.delete(mine)
      return [...found].sort((a, b) => (order.get(a) ?? 0) - (order.get(b) ?? 0))
    },
  }
}

/** In place of the words of a name that has none. */
const NAMELESS = ''

function take(from: Iterable<Group>, into: Set<Group>): void {
  let taken = 0
  for (const group of from) {
    if (taken++ === MOST_LIKELY) return
    into.add(group)
  }
}

function canJoin(target: Group, mine: Group, apart: KeptApart | null): boolean {
  for (const a of waysOf(target).values()) for (const b of waysOf(mine).values()) if (!mayBeOne(a, b)) return false
  if (!apart) return true
  const [few, many] = mine.ids.length < target.ids.length ? [mine, target] : [target, mine]
  return few.ids.filter(apart.isInAny).every((a) => many.ids.every((b) => !apart.isPair(a, b)))
}

const mayBeOne = (a: Written, b: Written): boolean =>
  areWordsCompatible(a.words, b.words) && isOneBirth(a.birthDate, b.birthDate) && mayBeOneHouse(a, b)

/** Contacts without names are businesses, or all that is known of somebody: their companies tell them apart then. */
const mayBeOneHouse = (a: Written, b: Written): boolean =>
  a.isNamed || b.isNamed || areWordsCompatible(a.house, b.house)

function listJoins(groups: ReadonlySet<Group>, reason: ReadonlyMap<number, Reason>): readonly ExactJoin[] {
  const joins: ExactJoin[] = []
  for (const group of groups) {
    const ids = group.ids.toSorted((a, b) => a - b)
    const [survivor] = ids
    if (survivor === undefined) continue
    const any = ids.map((id) => reason.get(id)).find((known) => known !== undefined)
    for (const member of ids.slice(1)) {
      const why = reason.get(member) ?? any
      if (why) joins.push({ survivor, member, ...why })
    }
  }
  return joins.sort((a, b) => a.member - b.member)
}

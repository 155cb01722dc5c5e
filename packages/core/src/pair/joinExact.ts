import { isOneBirth } from './births'
import { areNamesCompatible } from './compatibleNames'

/** Contacts that share one exact key (a number or an e-mail). */
export interface SharedKey {
  readonly kind: 'number' | 'email'
  readonly key: string
  readonly holders: readonly KeyHolder[]
}

export interface KeyHolder {
  readonly id: number
  readonly name: string
  /** `1987-05-03` or `1987`; empty where it is not known. */
  readonly birthDate?: string
  /** Of a contact without a name: all that tells it from others. */
  readonly company?: string
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
  add(key: SharedKey): void
  joins(): readonly ExactJoin[]
}

/**
 * Joins contacts that share an exact key and whose names and birth dates are compatible with all in the group, so
 * that an initial cannot bring two people together, nor one number father and son, nor two houses that answer at one
 * head office. The contact with the lowest id (the first row) survives. Keys are to be added in a fixed order: earlier
 * keys join first.
 * @param isKeptApart pairs that a person took apart are not joined again
 */
export function exactJoiner(isKeptApart: (a: number, b: number) => boolean = () => false): ExactJoiner {
  const groups = new Map<number, KeyHolder[]>()
  const reason = new Map<number, { kind: 'number' | 'email'; key: string }>()
  // Contacts that stand alone are not remembered: most holders of a key are never joined.
  const groupOf = (holder: KeyHolder): KeyHolder[] => groups.get(holder.id) ?? [holder]
  return {
    add: ({ kind, key, holders }) => {
      const ordered = [...holders].sort((a, b) => a.id - b.id)
      for (const [i, holder] of ordered.entries()) {
        const mine = groupOf(holder)
        const target = ordered
          .slice(0, i)
          .map(groupOf)
          .find((group) => canJoin(group, mine, isKeptApart))
        if (!target) continue
        // A contact that stood alone is remembered from now on.
        if (target.length === 1) for (const { id } of target) groups.set(id, target)
        for (const member of mine) {
          target.push(member)
          groups.set(member.id, target)
        }
        reason.set(holder.id, { kind, key })
      }
    },
    joins: () => listJoins(groups, reason),
  }
}

function canJoin(
  target: readonly KeyHolder[],
  group: readonly KeyHolder[],
  isKeptApart: (a: number, b: number) => boolean,
): boolean {
  if (target === group) return false
  return target.every((a) => group.every((b) => mayBeOne(a, b) && !isKeptApart(a.id, b.id)))
}

const mayBeOne = (a: KeyHolder, b: KeyHolder): boolean =>
  areNamesCompatible(a.name, b.name) && isOneBirth(a.birthDate ?? '', b.birthDate ?? '') && mayBeOneHouse(a, b)

/** Contacts without names are businesses, or all that is known of somebody: their companies tell them apart then. */
const mayBeOneHouse = (a: KeyHolder, b: KeyHolder): boolean =>
  a.name !== '' || b.name !== '' || areNamesCompatible(a.company ?? '', b.company ?? '')

function listJoins(
  groups: ReadonlyMap<number, readonly KeyHolder[]>,
  reason: ReadonlyMap<number, { kind: 'number' | 'email'; key: string }>,
): readonly ExactJoin[] {
  const joins: ExactJoin[] = []
  for (const group of new Set(groups.values())) {
    const ids = group.map((holder) => holder.id).sort((a, b) => a - b)
    const survivor = ids[0]
    if (survivor === undefined) continue
    for (const member of ids.slice(1)) {
      const why = reason.get(member) ?? ids.map((id) => reason.get(id)).find((known) => known !== undefined)
      if (why) joins.push({ survivor, member, ...why })
    }
  }
  return joins.sort((a, b) => a.member - b.member)
}

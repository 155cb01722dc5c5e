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
}

/** A contact that is joined to the one that survives, and the key that says they are one person. */
export interface ExactJoin {
  readonly survivor: number
  readonly member: number
  readonly kind: 'number' | 'email'
  readonly key: string
}

/**
 * Joins contacts that share an exact key and whose names are compatible with every name in the group, so that an
 * initial cannot bring two people together. The contact with the lowest id (the first row) survives.
 * @param keys in a fixed order: earlier keys join first
 * @param isKeptApart pairs that a person took apart are not joined again
 */
export function joinExact(
  keys: Iterable<SharedKey>,
  isKeptApart: (a: number, b: number) => boolean = () => false,
): readonly ExactJoin[] {
  const groups = new Map<number, KeyHolder[]>()
  const reason = new Map<number, { kind: 'number' | 'email'; key: string }>()
  const groupOf = (holder: KeyHolder): KeyHolder[] => {
    const group = groups.get(holder.id) ?? [holder]
    groups.set(holder.id, group)
    return group
  }
  for (const { kind, key, holders } of keys) {
    const ordered = [...holders].sort((a, b) => a.id - b.id)
    for (const [i, holder] of ordered.entries()) {
      const target = ordered
        .slice(0, i)
        .map(groupOf)
        .find((group) => canJoin(group, groupOf(holder), isKeptApart))
      if (!target) continue
      for (const member of groupOf(holder)) {
        target.push(member)
        groups.set(member.id, target)
      }
      reason.set(holder.id, { kind, key })
    }
  }
  return listJoins(groups, reason)
}

function canJoin(
  target: readonly KeyHolder[],
  group: readonly KeyHolder[],
  isKeptApart: (a: number, b: number) => boolean,
): boolean {
  if (target === group) return false
  return target.every((a) => group.every((b) => areNamesCompatible(a.name, b.name) && !isKeptApart(a.id, b.id)))
}

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

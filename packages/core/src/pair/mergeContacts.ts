/** Values and identifiers of a contact, whatever their shapes. */
export interface Mergeable<V extends object, N extends { e164: string }, E extends { address: string }> {
  readonly values: V
  readonly numbers: readonly N[]
  readonly emails: readonly E[]
}

/**
 * The survivor with its gaps filled from the members, in their order. Numbers and e-mails of all are kept, the
 * survivor's first.
 */
export function mergeContacts<V extends object, N extends { e164: string }, E extends { address: string }>(
  survivor: Mergeable<V, N, E>,
  members: readonly Mergeable<V, N, E>[],
): Mergeable<V, N, E> {
  if (members.length === 0) return survivor
  const values = { ...survivor.values } as Record<string, unknown>
  for (const member of members) {
    for (const [field, value] of Object.entries(member.values))
      if (values[field] === '' && value !== '') values[field] = value
  }
  const all = [survivor, ...members]
  return {
    values: values as V,
    numbers: distinctBy(
      all.flatMap(({ numbers }) => numbers),
      (number) => number.e164,
    ),
    emails: distinctBy(
      all.flatMap(({ emails }) => emails),
      (email) => email.address,
    ),
  }
}

function distinctBy<T>(items: readonly T[], keyOf: (item: T) => string): T[] {
  const found = new Map<string, T>()
  for (const item of items) if (!found.has(keyOf(item))) found.set(keyOf(item), item)
  return [...found.values()]
}

import { areNamesCompatible } from './compatibleNames'

/** A contact of any list, by what tells who it is. */
export interface Holder {
  readonly id: number
  readonly name: string
  /** Valid numbers in E.164. */
  readonly numbers: readonly string[]
  /** Addresses of one person: no role address. */
  readonly addresses: readonly string[]
}

/** Who is erased when a person is forgotten, and by which keys they are kept out from then on. */
export interface Forgetting {
  readonly ids: readonly number[]
  readonly keys: readonly string[]
  /** Numbers that other people hold too: erased with the person, but not kept out. */
  readonly heldByOthers: readonly string[]
}

/**
 * Finds a person among everybody who holds one of their keys: the same address, or the same number under a name that
 * can be theirs. A contact without a name that shares but a number may be anybody, and is left.
 * @param person contacts that are the person for certain; at least one
 * @param others contacts that hold a key of theirs
 */
export function findForgotten(person: readonly Holder[], others: readonly Holder[]): Forgetting {
  const found = [...person]
  let left = [...others]
  for (let before = -1; before !== found.length; ) {
    before = found.length
    const theirs = left.filter((other) => isPerson(found, other))
    found.push(...theirs)
    left = left.filter((other) => !theirs.includes(other))
  }
  const numbers = new Set(found.flatMap((one) => one.numbers))
  const strange = new Set(left.flatMap((one) => one.numbers))
  return {
    ids: found.map(({ id }) => id),
    keys: [...new Set(found.flatMap(({ addresses }) => addresses)), ...[...numbers].filter((one) => !strange.has(one))],
    heldByOthers: [...numbers].filter((one) => strange.has(one)),
  }
}

const isPerson = (person: readonly Holder[], other: Holder): boolean =>
  person.some(
    (one) =>
      haveOneInCommon(one.addresses, other.addresses) ||
      (haveOneInCommon(one.numbers, other.numbers) &&
        one.name !== '' &&
        other.name !== '' &&
        areNamesCompatible(one.name, other.name)),
  )

const haveOneInCommon = (a: readonly string[], b: readonly string[]): boolean => a.some((one) => b.includes(one))

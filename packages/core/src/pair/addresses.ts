import { isOneSlipApart } from '../slip'
import { LEVEL, UNKNOWN } from './fields'
import { hashOfTwo } from './hash'
import { int32List } from './int32List'
import { lettersOf } from './letters'
import { hashPool, type Sealable, sealAll } from './pool'

/** The e-mail addresses of a list. */
export interface Addresses extends Sealable {
  /** Number of an address. 0 is none. */
  idOf(address: string, isRole: boolean): number
  /** How many there are, the empty one counted in. */
  count(): number
  /** True for an address that belongs to a house, not to a person. */
  isRole(id: number): boolean
  hashOf(id: number): number
  /** Hash of the letter box: the same with a tag, and with its dots or without. */
  boxOf(id: number): number
  /** Position of the level at which two addresses stand to each other, or `UNKNOWN`. */
  compare(a: number, b: number): number
}

/** Shorter local parts (`anna`) stand before many a domain. */
const LEAST_LOCAL = 5
/** Beside the number of a host. */
const ROLE = 1
const { same, like, role, other, rival } = LEVEL.email

/** @param expected how many addresses are about to come */
export function pairAddresses(expected: number): Addresses {
  const addresses = hashPool(expected)
  const locals = hashPool(expected)
  const hosts = hashPool()
  const letters = lettersOf(expected)
  // Of each address two numbers, side by side since they are looked at together: its local part, its host with its role.
  const parts = int32List(expected * 2)
  const undotted = int32List(expected)
  const undottedPool = hashPool(expected)
  const localOf = (id: number): number => parts.at(id * 2)
  const hostOf = (id: number): number => parts.at(id * 2 + 1) >>> 1
  const isRole = (id: number): boolean => (parts.at(id * 2 + 1) & ROLE) !== 0
  const lengthOfLocal = (id: number): number => letters.lengthOf(localOf(id))
  const areLike = (a: number, b: number): boolean => {
    if (lengthOfLocal(a) < LEAST_LOCAL) return false
    const [mine, theirs] = [localOf(a), localOf(b)]
    if (undotted.at(mine) === undotted.at(theirs)) return true
    if (Math.abs(lengthOfLocal(a) - lengthOfLocal(b)) > 1) return false
    const [one, two] = [letters.textOf(mine), letters.textOf(theirs)]
    // A figure more makes the letter box of a namesake.
    return one.replace(/\D/g, '') === two.replace(/\D/g, '') && isOneSlipApart(one, two)
  }
  const add = (address: string, isOfHouse: boolean): void => {
    const at = address.lastIndexOf('@')
    const name = withoutTag(address.slice(0, Math.max(0, at)))
    const local = locals.idOf(name)
    if (local === letters.count()) {
      letters.add(name)
      undotted.push(undottedPool.idOf(name.replace(/[._-]/g, '')))
    }
    parts.push(local)
    parts.push(hosts.idOf(address.slice(at + 1)) * 2 + (isOfHouse ? ROLE : 0))
  }
  letters.add('')
  undotted.push(undottedPool.idOf(''))
  add('', false)
  return {
    idOf: (address, isOfHouse) => {
      const id = addresses.idOf(address)
      if (id * 2 === parts.length) add(address, isOfHouse)
      return id
    },
    isRole,
    hashOf: addresses.hashOf,
    count: addresses.count,
    seal: () => sealAll([addresses, locals, hosts, undottedPool]),
    boxOf: (id) => hashOfTwo(hosts.hashOf(hostOf(id)), undottedPool.hashOf(undotted.at(localOf(id)))),
    compare: (a, b) => {
      if (a === b) return isRole(a) ? role : same
      if (isRole(a) || isRole(b)) return UNKNOWN
      const isSameHost = hostOf(a) === hostOf(b)
      // A tag behind the name is the holder's own: `name+tag@` is `name@`.
      if (isSameHost && localOf(a) === localOf(b)) return same
      // The same name at another host says no more than the name itself.
      if (!isSameHost) return localOf(a) === localOf(b) ? UNKNOWN : other
      // Hardly anybody needs two addresses with one host.
      return areLike(a, b) ? like : rival
    },
  }
}

/** `name+tag` is the same letter box as `name`: RFC 5233, subaddressing. */
function withoutTag(local: string): string {
  const at = local.indexOf('+')
  return at > 0 ? local.slice(0, at) : local
}

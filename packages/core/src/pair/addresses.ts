import { isOneSlipApart } from '../slip'
import { LEVEL, UNKNOWN } from './fields'
import { int32List } from './int32List'
import { lettersOf } from './letters'
import { hashPool } from './pool'

/** The e-mail addresses of a list. */
export interface Addresses {
  /** Number of an address. 0 is none. */
  idOf(address: string, isRole: boolean): number
  /** How many there are, the empty one counted in. */
  count(): number
  /** True for an address that belongs to a house, not to a person. */
  isRole(id: number): boolean
  hashOf(id: number): number
  /** What stands before the at sign, as a number; and how long it is. */
  localOf(id: number): number
  lengthOfLocal(id: number): number
  /** Position of the level at which two addresses stand to each other, or `UNKNOWN`. */
  compare(a: number, b: number): number
}

/** Shorter local parts (`anna`) stand before many a domain. */
const LEAST_LOCAL = 5
const { same, like, role, other, rival } = LEVEL.email

export function pairAddresses(): Addresses {
  const addresses = hashPool()
  const locals = hashPool()
  const hosts = hashPool()
  const letters = lettersOf()
  const [localIds, hostIds, roles] = [int32List(), int32List(), int32List()]
  const isRole = (id: number): boolean => roles.at(id) === 1
  const lengthOfLocal = (id: number): number => letters.lengthOf(localIds.at(id))
  const areLike = (a: number, b: number, isSameHost: boolean): boolean => {
    if (lengthOfLocal(a) < LEAST_LOCAL) return false
    const [mine, theirs] = [localIds.at(a), localIds.at(b)]
    if (mine === theirs) return true
    if (!isSameHost || Math.abs(lengthOfLocal(a) - lengthOfLocal(b)) > 1) return false
    return isOneSlipApart(letters.textOf(mine), letters.textOf(theirs))
  }
  const add = (address: string, isOfHouse: boolean): void => {
    const at = address.lastIndexOf('@')
    const local = locals.idOf(address.slice(0, Math.max(0, at)))
    if (local === letters.count()) letters.add(address.slice(0, at))
    localIds.push(local)
    hostIds.push(hosts.idOf(address.slice(at + 1)))
    roles.push(isOfHouse ? 1 : 0)
  }
  letters.add('')
  add('', false)
  return {
    idOf: (address, isOfHouse) => {
      const id = addresses.idOf(address)
      if (id === localIds.length) add(address, isOfHouse)
      return id
    },
    isRole,
    hashOf: addresses.hashOf,
    count: addresses.count,
    localOf: localIds.at,
    lengthOfLocal,
    compare: (a, b) => {
      if (a === b) return isRole(a) ? role : same
      if (isRole(a) || isRole(b)) return UNKNOWN
      const isSameHost = hostIds.at(a) === hostIds.at(b)
      if (areLike(a, b, isSameHost)) return like
      // Nobody needs two addresses with one host.
      return isSameHost ? rival : other
    },
  }
}

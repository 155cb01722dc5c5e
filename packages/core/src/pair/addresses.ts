import { isOneSlipApart } from '../slip'
import { LEVEL, UNKNOWN } from './fields'
import { textPool } from './pool'

/** The e-mail addresses of a list. */
export interface Addresses {
  /** Number of an address. 0 is none. */
  idOf(address: string, isRole: boolean): number
  /** True for an address that belongs to a house, not to a person. */
  isRole(id: number): boolean
  hashOf(id: number): number
  /** How many there are, the empty one counted in. */
  count(): number
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
  const addresses = textPool()
  const locals = textPool()
  const hosts = textPool()
  const localOf: number[] = [0]
  const hostOf: number[] = [0]
  const isRole: boolean[] = [false]
  const localText = (id: number): string => locals.texts[localOf[id] as number] as string
  return {
    idOf: (address, isOfHouse) => {
      const id = addresses.idOf(address)
      if (id < localOf.length) return id
      const at = address.lastIndexOf('@')
      localOf.push(locals.idOf(address.slice(0, at)))
      hostOf.push(hosts.idOf(address.slice(at + 1)))
      isRole.push(isOfHouse)
      return id
    },
    isRole: (id) => isRole[id] as boolean,
    hashOf: addresses.hashOf,
    count: () => localOf.length,
    localOf: (id) => localOf[id] as number,
    lengthOfLocal: (id) => localText(id).length,
    compare: (a, b) => {
      if (a === b) return isRole[a] ? role : same
      if (isRole[a] || isRole[b]) return UNKNOWN
      const isSameHost = hostOf[a] === hostOf[b]
      const [mine, theirs] = [localText(a), localText(b)]
      if (mine.length >= LEAST_LOCAL && (mine === theirs || (isSameHost && isOneSlipApart(mine, theirs)))) return like
      // Nobody needs two addresses with one host.
      return isSameHost ? rival : other
    },
  }
}

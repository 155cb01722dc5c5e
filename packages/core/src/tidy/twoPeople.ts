import { titleBefore } from './titles'

const JOINTS = /\s+(?:and|&|\+|und|u\.|et|y|e|og|och|en)\s+|\s*\/\s*/iu
const PAIR = new RegExp(`^(\\p{L}[^&+/]*?)(?:${JOINTS.source})(\\p{L}[^&+/]*)$`, 'iu')

/** The names of two people that stand in one cell, whole; null where there is one, or where it may be a firm. */
export function twoPeople(cell: string): readonly [string, string] | null {
  if (!JOINTS.test(cell)) return null
  const found = PAIR.exec(cell)
  if (!found?.[1] || !found[2] || /\d/.test(cell)) return null
  const [first, second] = [withoutTitle(found[1]), withoutTitle(found[2])]
  const words = (name: string) => name.split(' ').filter(Boolean).length
  // One surname for both stands with the second.
  if (words(second) < 2 || words(first) > 3 || words(second) > 4) return null
  if (words(first) >= 2) return [first, second]
  const family = second.slice(second.lastIndexOf(' ') + 1)
  return first === '' ? null : [`${first} ${family}`, second]
}

const withoutTitle = (name: string): string => {
  const trimmed = name.trim()
  return trimmed.slice(titleBefore(`${trimmed} `)?.length ?? 0).trim()
}

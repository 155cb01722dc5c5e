import type { Preflight } from '@upper-field/contract'
import { count } from '../words/format'
import { SEND_FIELD } from '../words/sentences'

/** How many of those ready have which identifier, and several. */
export function identifiersText({ identifiers, byCount }: Pick<Preflight, 'identifiers' | 'byCount'>): string {
  const kinds = identifiers.map(({ field, n }) => `${count(n)} with ${SEND_FIELD[field]}`)
  const several = byCount[1] + byCount[2]
  return [...kinds, several > 0 ? `${count(several)} with more than one` : ''].filter(Boolean).join(', ')
}

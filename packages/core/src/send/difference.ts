import type { Destination } from './destination'
import type { NetworkCalls, PartChange } from './networkCalls'

/** How what changed is told to a network. */
export type Way = 'changes' | 'whole'

/** Whether a delivery can be of changes alone: only where the network takes them, and there is something to change. */
export const wayOf = (destination: Pick<Destination, 'changes' | 'network'>, holdsAny: boolean): Way => {
  const calls: NetworkCalls['part']['calls'] = destination.network?.part.calls ?? {}
  const canChange = destination.changes === 'added-and-removed' && calls.add !== undefined
  if (!canChange) return 'whole'
  return holdsAny && calls.remove === undefined ? 'whole' : 'changes'
}

/** The rounds of a delivery, in order. Whoever leaves goes first: a network that goes by identifiers would else take them out again. */
export const roundsOf = (way: Way): readonly PartChange[] => (way === 'whole' ? ['whole'] : ['remove', 'add'])

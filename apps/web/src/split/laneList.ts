import type { LaneRules } from '@upper-field/contract'
import type { Use } from '@upper-field/core/split'
import { laneText } from '../words/sentences'

/** A lane as it is shown: what takes contacts into it. */
export interface ShownLane {
  readonly lane: string
  readonly name: string
  readonly why: string
}

export const USE_TEXT: Readonly<Record<Use, string>> = {
  texts: 'a mobile of their own that may be texted',
  calls: 'any line that may be called',
  post: 'a whole postal address',
  ads: 'an e-mail or a number to match by',
}

const USUAL: readonly ShownLane[] = [
  { lane: 'text', name: 'Text', why: 'a mobile of their own, not out of service' },
  { lane: 'call', name: 'Call', why: 'any line that may be called' },
  { lane: 'ads-only', name: 'Ads only', why: 'an e-mail' },
]
const PARKED: ShownLane = { lane: 'parked', name: 'Parked', why: 'everyone else' }

/** The lanes of a list in the order in which they take contacts; whoever none takes is parked. */
export function shownLanes(rules: LaneRules | undefined): readonly ShownLane[] {
  if (!rules?.isOwn) return [...USUAL, PARKED]
  const own = rules.rules.map(({ lane, name, use, filter }) => ({
    lane,
    name: name || laneText(lane),
    why: filter === '' ? USE_TEXT[use] : filter,
  }))
  return [...own, PARKED]
}

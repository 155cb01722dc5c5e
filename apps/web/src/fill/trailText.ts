import type { ContactStep, TrailLine, TrailStep } from '@upper-field/contract'
import { FOUND_AS } from '../words/fill'
import { valueText } from '../words/story'

/** How a question ended, in words. */
export const STEP_WORD: Record<TrailStep['state'], string> = {
  accepted: 'taken',
  'set-aside': 'found, set aside',
  nothing: 'nothing known',
  failed: 'failed',
  late: 'no answer in time',
  waiting: 'waiting',
}

export const NOT_ASKED_WORD: Record<NonNullable<ContactStep['notAsked']>, string> = {
  'no-input': 'could not be asked: what it must be told is not known',
  'asked-lately': 'not asked: it had no answer lately',
  'ended-before': 'not asked: the search had ended',
  'not-yet': 'not asked yet',
}

/** What came of the search for a contact, in a line. */
export function outcomeText({ state, taken, steps }: TrailLine): string {
  const wanted = taken.filter(({ foundAs }) => foundAs !== 'office' && foundAs !== 'risky' && foundAs !== 'besides')
  if (wanted.length > 0) return wanted.map(({ value }) => valueText(value)).join(', ')
  const [kept] = taken
  if (kept) return `${FOUND_AS[kept.foundAs].toLowerCase()}: ${valueText(kept.value)}`
  switch (state) {
    case 'open':
      return 'asked next'
    case 'waiting':
      return 'waits for an answer'
    case 'budget':
      return 'left by the budget'
    case 'left-out':
      return 'left out: suppressed meanwhile'
    default:
      if (steps.length === 0) return 'nobody could be asked'
      return steps.some((step) => step.state === 'set-aside') ? 'found, none of use' : 'nobody knows'
  }
}

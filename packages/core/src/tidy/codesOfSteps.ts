import { type ChangeCode, NAME_CODES } from './changes'
import { isSame } from './differenceOf'
import type { Routine, Step, StepKind } from './routine'

/** Codes of what each kind of step changes. */
export const CODES_OF: Record<StepKind, readonly ChangeCode[]> = {
  letters: ['html-entities', 'broken-letters'],
  refusals: ['refusal'],
  blanks: ['blank-word'],
  numbers: [
    'lost-zero',
    'country-code-without-plus',
    'international-prefix',
    'country-code-twice',
    'trunk-zero',
    'letters-for-digits',
    'keypad-letters',
    'scientific-notation',
    'several-numbers',
    'label-taken-off',
    'decimal-tail',
    'percent-encoding',
    'odd-plus',
    'shared-stem',
    'old-form',
    'apostrophe',
    'number-form',
  ],
  names: NAME_CODES,
  company: ['company-legal-form', 'company-case'],
  emails: ['email-mended', 'several-emails', 'email-form'],
  country: ['country-code'],
  region: ['region-code'],
  'postal-code': ['postal-code-zero', 'postal-code-form'],
  dates: ['date-form'],
  web: ['web-domain', 'profile-form'],
  replace: ['replaced'],
  derive: ['derived'],
  columns: [],
}

/**
 * What a row must have been changed by to come out otherwise under another routine, by the codes of it: where that is the
 * same with steps switched off or left away. Whatever such a step has not touched is the same without it.
 * @returns null where any row may come out otherwise
 */
export function codesAtStake(was: Routine, is: Routine): readonly ChangeCode[] | null {
  const gone = stepsGone(was, is)
  // Whether names are mended decides besides how one is parted in the end.
  if (gone === null || gone.some(({ kind }) => kind === 'names')) return null
  return gone.flatMap(({ kind }) => CODES_OF[kind])
}

/** The steps that one runs and the other does not; null where that does anything besides. */
function stepsGone(was: Routine, is: Routine): readonly Step[] | null {
  const kept = is.steps.filter(({ isOn }) => isOn)
  const gone: Step[] = []
  let at = 0
  for (const step of was.steps.filter(({ isOn }) => isOn)) {
    if (at < kept.length && isSame(step, kept[at])) at++
    else gone.push(step)
  }
  return was.version === is.version && at === kept.length ? gone : null
}

/** Steps of a normal form that have no setting. */
export const NORMAL_STEPS = [
  'trim',
  'compose',
  'lower',
  'upper',
  'no-tag',
  'no-dots',
  'e164',
  'digits',
  'no-punctuation',
  'one-space',
  'no-space',
  'ascii',
  'country',
  'host',
] as const
export type PlainStep = (typeof NORMAL_STEPS)[number]

export const isPlainStep = (step: string): step is PlainStep => (NORMAL_STEPS as readonly string[]).includes(step)

/** Steps that are written with their setting: so many characters are kept; a date by a pattern. */
export const FIRST_STEP = /^first:([1-9]\d{0,3})$/
export const DATE_STEP = /^date:((?:YYYY|YY|MM|DD|[-./])+)$/

/** Why a step cannot be used, as a sentence; null where it can. */
export function whyNoStep(step: string): string | null {
  if (isPlainStep(step) || FIRST_STEP.test(step) || DATE_STEP.test(step)) return null
  if (step.startsWith('first:')) return `"${step}" needs how many characters are kept, such as first:1.`
  if (step.startsWith('date:')) return `"${step}" needs a pattern of YYYY, MM and DD, such as date:YYYYMMDD.`
  return `There is no step "${step}". There are: ${NORMAL_STEPS.join(', ')}, first:N and date:YYYYMMDD.`
}

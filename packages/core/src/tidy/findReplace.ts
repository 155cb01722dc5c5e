import { RE2JS } from 're2js'
import type { StepOptions } from './routine'

export type Replacer = (text: string) => string
export type ReplacerOrProblem =
  | { readonly status: 'ready'; readonly replace: Replacer }
  | { readonly status: 'refused'; readonly why: string }

const LONGEST_PATTERN = 500
/** Cells are cut before a pattern sees them: a file can hold cells of a megabyte. */
const LONGEST_CELL = 20_000

/**
 * Find and replace, plain or by pattern. Patterns run in time that grows with the text alone (RE2's syntax): those that
 * could run for ever, with references back or looking around, are refused with the reason.
 */
export function createReplacer({ find, with: put, isPattern, minds }: StepOptions['replace']): ReplacerOrProblem {
  if (find === '') return { status: 'refused', why: 'Nothing to find was given.' }
  if (find.length > LONGEST_PATTERN)
    return { status: 'refused', why: `At most ${LONGEST_PATTERN} characters can be looked for.` }
  try {
    const source = isPattern ? find : RE2JS.quote(find)
    const pattern = RE2JS.compile(source, minds === 'case' ? 0 : RE2JS.CASE_INSENSITIVE)
    const replacement = isPattern ? put : put.replaceAll('$', '$$$$')
    const missing = isPattern ? missingGroup(put, pattern.groupCount()) : null
    if (missing !== null)
      return { status: 'refused', why: `This pattern cannot be used: it has no brackets ${missing}.` }
    return {
      status: 'ready',
      replace: (text) => (text.length > LONGEST_CELL ? text : pattern.matcher(text).replaceAll(replacement)),
    }
  } catch (error) {
    return {
      status: 'refused',
      why: `This pattern cannot be used: ${error instanceof Error ? error.message : 'it is not understood'}.`,
    }
  }
}

/** The first `$n` of a replacement for which the pattern has no brackets. */
function missingGroup(put: string, groups: number): number | null {
  const wanted = [...put.matchAll(/\$(\d+)/g)].map((match) => Number(match[1]))
  return wanted.find((n) => n > groups) ?? null
}

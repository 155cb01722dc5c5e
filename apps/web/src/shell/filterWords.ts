import type { FilterIssue } from '@upper-field/core/split'

/** What is wrong with a typed filter, as a sentence. */
export function issueText({ code, word }: FilterIssue): string {
  switch (code) {
    case 'unknown-field':
      return `There is no field “${word}”; it is searched for as a word.`
    case 'unbalanced':
      return 'A bracket has no other half; all is searched for as words.'
    case 'incomplete':
      return `Something is missing beside “${word}”; it is searched for as a word.`
    case 'no-number':
      return `“${word}” is no number; it is searched for as a word.`
    case 'no-date':
      return `“${word}” is no date, such as 2026-11 or 2026-11-28; it is searched for as a word.`
    case 'no-order':
      return `“${word}” has no order: compare it with : or =.`
    case 'unknown-value':
      return `“${word}” cannot be asked for here; it is searched for as a word.`
  }
}

/** The text with the mistaken word put right. */
export const mended = (text: string, { at, length, word, nearest }: FilterIssue): string =>
  nearest === null
    ? text
    : text.slice(0, at) + text.slice(at, at + length).replace(word, nearest) + text.slice(at + length)

/** What may be a number: digits with what people put between them, on one line. */
const RUN = /(?:\+|\b|\()[\d(+][\d()[\].\u00a0\u2009\u202f /\u2010-\u2015·•'’-]{4,}\d/gu
const FEWEST_DIGITS = 6

/** A run of digits with what people put between them. */
export interface Run {
  readonly raw: string
  readonly at: number
  readonly end: number
  /** What stands before it, behind the run before. */
  readonly own: string
}

/** Everything in a text that may be a number. */
export function runsIn(text: string): readonly Run[] {
  let behindLast = 0
  return [...text.matchAll(RUN)].flatMap((match): Run[] => {
    const raw = trimmed(match[0])
    const at = match.index + match[0].indexOf(raw)
    const end = at + raw.length
    const own = text.slice(Math.max(behindLast, at - 80), at)
    behindLast = end
    return raw.replace(/\D/g, '').length < FEWEST_DIGITS ? [] : [{ raw, at, end, own }]
  })
}

/** Without the signs at its ends, and without a bracket that has no other half. */
function trimmed(run: string): string {
  let text = run.replace(/^[\s./\u2010-\u2015·•'’-]+|[\s./\u2010-\u2015·•'’(-]+$/gu, '')
  if (text.startsWith('(') && !text.includes(')')) text = text.slice(1)
  return text
}

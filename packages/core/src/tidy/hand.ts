import { type Fix, nearestFixes, type Problem } from '../phone'
import { proposeEmail } from './emailForm'
import { readEmails } from './emails'
import type { ProjectedContact } from './projectRow'

/** A cell that needs a person. */
export interface HandCell {
  readonly column: number
  readonly raw: string
  readonly problem: Problem | 'no-address' | 'slip-in-domain'
  /** What it may have been, likeliest first. Nothing of it is applied before a person says so. */
  readonly fixes: readonly Fix[]
  /** How promising it is, from 1; the most promising are shown first. */
  readonly rank: number
}

/** Problems of cells that hold something else than a number: nothing can be mended, but somebody may know better. */
const SOMETHING_ELSE: readonly Problem[] = [
  'masked',
  'digits-lost',
  'date',
  'card',
  'ip-address',
  'email',
  'reference-number',
  'no-digits',
  'cell-too-long',
]

/** Cells of a row that a person should look at, the most promising first. */
export function handOf(
  { readings, numbers, values }: Pick<ProjectedContact, 'readings' | 'numbers' | 'values'>,
  emailCells: readonly { readonly column: number; readonly raw: string }[],
): readonly HandCell[] {
  const found: HandCell[] = []
  const isReached = numbers.some(({ valid }) => valid)
  for (const { column, raw, reading } of readings) {
    const { problem } = reading
    if (problem === null || problem === 'left-out') continue
    const isElse = SOMETHING_ELSE.includes(problem)
    const fixes = isElse ? [] : nearestFixes(raw, values.country || null)
    const rank = isElse || isReached ? 1 : fixes.length > 0 ? 3 : 2
    found.push({ column, raw, problem, fixes, rank })
  }
  for (const { column, raw } of emailCells) {
    const [email] = readEmails(raw)
    const proposal = email ? proposeEmail(email.address) : null
    if (proposal !== null)
      found.push({ column, raw, problem: 'slip-in-domain', fixes: [{ kind: 'domain', text: proposal }], rank: 4 })
    else if (!email && raw.trim() !== '') found.push({ column, raw, problem: 'no-address', fixes: [], rank: 2 })
  }
  return found.sort((a, b) => b.rank - a.rank)
}

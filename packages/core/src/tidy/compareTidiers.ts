import type { Change } from './changes'
import type { RoutineParts, Settled, Tidier } from './compileRoutine'
import { type Difference, differenceOf, isSame, type ToldAlike } from './differenceOf'
import type { Draft } from './draft'
import type { ProjectedContact } from './projectRow'

/** How a row comes out otherwise, and what it is now; where it comes out as before, that is not worked out. */
export type Compared =
  | { readonly difference: 'none' }
  | { readonly difference: Exclude<Difference, 'none'>; readonly now: ProjectedContact }

/**
 * Compares what two routines make of the rows of one file. Steps they begin with in common are run once, and a row that
 * leaves both in the same state is not projected: of most changes of a routine most rows do. Told is what
 * `differenceOf` tells of both contacts, but for where a column stands that is blank in both.
 */
export function compareTidiers(
  was: Tidier,
  is: Tidier,
  areToldAlike?: ToldAlike,
): (cells: readonly string[], settled?: Settled) => Compared {
  const [a, b] = [was.parts, is.parts]
  const isLeftOutAlike = isSame([...a.leftOut].sort(), [...b.leftOut].sort())
  const isBegunAlike = isLeftOutAlike && a.ending.defaultCountry === b.ending.defaultCountry && isSameFile(a, b)
  const common = isBegunAlike ? stepsInCommon(a, b) : 0
  const width = a.stages[common - 1]?.width ?? 0
  const aligned = isLeftOutAlike && isSameEnding(a, b) ? alignedColumns(a.names, b.names) : null
  return (cells, settled) => {
    const before = a.begin(cells, settled)
    for (let i = 0; i < common; i++) a.stages[i]?.run?.(before)
    const after = common === 0 ? b.begin(cells, settled) : goneOn(before, width, b.names.length)
    finish(a, before, common, settled)
    finish(b, after, common, settled)
    if (aligned && isSameDraft(before, after, aligned)) return { difference: 'none' }
    const now = b.end(after, settled)
    const difference = differenceOf(a.end(before, settled), now, areToldAlike)
    return difference === 'none' ? { difference } : { difference, now }
  }
}

function finish(parts: RoutineParts, draft: Draft, from: number, settled: Settled | undefined): void {
  for (let i = from; i < parts.stages.length; i++) parts.stages[i]?.run?.(draft)
  parts.edit(draft, settled)
}

/** A row as it stands behind the steps in common, for the columns of the other routine. */
function goneOn({ cells, country, changes, leftOut }: Draft, width: number, all: number): Draft {
  const own = new Array<string>(all).fill('')
  for (let i = 0; i < width; i++) own[i] = cells[i] ?? ''
  return { cells: own, country, changes: [...changes], leftOut }
}

/** The columns of the file stand first in both. */
const isSameFile = (a: RoutineParts, b: RoutineParts): boolean => isSame(fileColumns(a), fileColumns(b))

const fileColumns = ({ names, fileWidth }: RoutineParts): readonly string[] => names.slice(0, fileWidth)

function stepsInCommon(a: RoutineParts, b: RoutineParts): number {
  let n = 0
  while (n < a.stages.length && n < b.stages.length && isSame(a.stages[n]?.step, b.stages[n]?.step)) n++
  return n
}

const isSameEnding = ({ ending: a }: RoutineParts, { ending: b }: RoutineParts): boolean =>
  a.defaultCountry === b.defaultCountry &&
  a.splitsNames === b.splitsNames &&
  a.numbersStep === b.numbersStep &&
  a.emailsStep === b.emailsStep &&
  isSame([...a.publicHosts].sort(), [...b.publicHosts].sort())

/** Where each column stands in one and the other, -1 where it does not; null where they stand in another order. */
function alignedColumns(a: readonly string[], b: readonly string[]): readonly (readonly [number, number])[] | null {
  const [inA, inB] = [placesOf(a), placesOf(b)]
  const inBoth = a.filter((name) => inB.has(name))
  if (
    !isSame(
      inBoth,
      b.filter((name) => inA.has(name)),
    )
  )
    return null
  return [...new Set([...a, ...b])].map((name) => [inA.get(name) ?? -1, inB.get(name) ?? -1] as const)
}

const placesOf = (names: readonly string[]): ReadonlyMap<string, number> => new Map(names.map((name, at) => [name, at]))

function isSameDraft(a: Draft, b: Draft, aligned: readonly (readonly [number, number])[]): boolean {
  for (const [inA, inB] of aligned) if ((a.cells[inA] ?? '') !== (b.cells[inB] ?? '')) return false
  return a.changes.length === b.changes.length && a.changes.every((change, i) => isSameChange(change, b.changes[i]))
}

const isSameChange = (a: Change, b: Change | undefined): boolean => a === b || isSame(a, b)

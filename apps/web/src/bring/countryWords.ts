import type { CountryInference } from '@upper-field/core/table'
import { count as grouped, plural } from '../words/format'
import type { NumberCount } from './headWorker'

/** Too few cells to question a country by. */
const LEAST_CELLS = 2
/** Of so few numbers read, a country is questioned. */
const NEXT_TO_NOTHING = 0.25

/** `6 rows, 7 numbers: 6 will be read, 1 not`. */
export function sentenceOf({ rows, cells, read }: NumberCount): string {
  const told = `${plural(rows, 'row')}, ${plural(cells, 'number')}`
  if (cells === 0) return `${told}.`
  if (read === cells) return `${told}: ${cells === 1 ? 'it will be read' : 'all will be read'}.`
  return `${told}: ${grouped(read)} will be read, ${grouped(cells - read)} not.`
}

/** True where a country reads next to nothing of what stands there. */
export const isQuestioned = ({ cells, read }: NumberCount): boolean =>
  cells >= LEAST_CELLS && read / cells < NEXT_TO_NOTHING

/** What stands below the choice of a country: where the proposal comes from. */
export function hintFor(inferred: CountryInference, country: string | null, isKnown: boolean): string {
  if (isKnown) return 'As last time this layout was brought in.'
  if (country !== null && country === inferred.suggested) return `Proposed. ${inferred.why}`
  if (inferred.suggested === null) return `${inferred.why} Numbers without a code are dialled from here.`
  return 'Numbers without a code are dialled from here where the row names no country.'
}

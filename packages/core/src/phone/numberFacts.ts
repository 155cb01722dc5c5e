import { internationalForm, nationalForm } from './engine/format'
import { nameFor, zonesFor } from './engine/places'
import { callingCodeOf, rulesOf } from './engine/tables'
import { type PlanNumber, readByPlan } from './plan'
import type { LineType } from './types'

/** Whether a text message can reach a line of a type: known by the type, or only by a line check. */
export type Textable = 'yes' | 'no' | 'unknown'

/** What the numbering plan tells of a number beyond its type. */
export interface NumberFacts {
  /** Name of the region in English, as the plan's authors publish it; null where the plan tells none. */
  readonly region: string | null
  /** Time zones (IANA) the number may be in: several where the plan does not tell them apart, none where it is silent. */
  readonly timeZones: readonly string[]
  readonly textable: Textable
}

/**
 * What the plan tells of a number.
 * @param e164 with its plus sign
 * @param lineType as it is known: by the plan, or better
 */
export function numberFacts(e164: string, lineType: LineType): NumberFacts {
  const digits = e164.slice(1)
  // Numbers that stand for no place have no region, whatever their first digits are.
  return {
    region: PLACED.has(lineType) ? nameFor(digits) : null,
    timeZones: zonesFor(digits),
    textable: textable(lineType),
  }
}

/** Time zones (IANA) a number may be in: several where the plan does not tell them apart. @param e164 with its plus sign */
export const timeZonesOf = (e164: string): readonly string[] => zonesFor(e164.slice(1))

const PLACED: ReadonlySet<LineType> = new Set(['fixed', 'fixed-or-mobile'])

/** Whether a line of this type can be texted; where mobile and fixed share ranges only a line check can tell. */
export function textable(lineType: LineType): Textable {
  if (lineType === 'mobile') return 'yes'
  return lineType === 'fixed-or-mobile' || lineType === 'unknown' ? 'unknown' : 'no'
}

/** Calling code of the North American plan, whose countries dial one another with a 1 alone. */
const NORTH_AMERICA = 1

/**
 * How a number is dialled from a country, as the reference writes it.
 * @param e164 with its plus sign
 * @param from ISO 3166-1 alpha-2 of the country it is dialled from
 * @returns with a plus where that country has no single prefix for abroad; the text itself where it is no number
 */
export function dialledFrom(e164: string, from: string): string {
  const number = readByPlan(e164, null)
  const code = number && callingCodeOf(number.countryCode)
  if (!number || !code) return e164
  const abroad = internationalForm(code, number.national)
  const home = from === '001' ? null : rulesOf(from)
  if (home === null) return abroad
  if (home.code === number.countryCode) return atHome(number, nationalForm(code, number.national))
  return home.dialledIdd === null ? abroad : `${home.dialledIdd} ${abroad.slice(1)}`
}

const atHome = ({ countryCode }: PlanNumber, national: string): string =>
  countryCode === NORTH_AMERICA ? `1 ${national}` : national

import { isSuffix } from './credentials'
import { titleBefore } from './titles'

export interface PersonName {
  readonly given: string
  readonly family: string
}

/** Words that belong to the surname behind them and are written small inside a name. */
export const PARTICLES: ReadonlySet<string> = new Set(
  `van von vom de der den dem del della dello degli di da du des d' la le las los ten ter te 't zu zum zur af av auf
   al el bin ibn bint ben dos das do y e und i st st. mac op ap`.split(/\s+/),
)

/** A full name in two parts: `Oldershaw, Maren` the other way round, particles with the family name. */
export function splitName(full: string): PersonName {
  const spaced = isSingleSpaced(full) ? full : full.replace(/\s+/g, ' ').trim()
  const name = spaced.slice(titleBefore(spaced)?.length ?? 0)
  const comma = name.includes(',') ? /^([^,]+),\s*([^,]+)$/.exec(name) : null
  if (comma && !isSuffix(comma[2]?.trim() ?? ''))
    return { given: comma[2]?.trim() ?? '', family: comma[1]?.trim() ?? '' }
  let space = name.lastIndexOf(' ')
  // A suffix goes with the surname before it.
  const before = name.lastIndexOf(' ', space - 1)
  if (space > 0 && before > 0 && isSuffix(name.slice(space + 1))) space = before
  if (space === -1) return { given: '', family: name }
  // Particles stand with the family name, but one word at least is the given name.
  for (let before = name.lastIndexOf(' ', space - 1); before > 0; before = name.lastIndexOf(' ', space - 1)) {
    if (!PARTICLES.has(name.slice(before + 1, space).toLowerCase())) break
    space = before
  }
  return { given: name.slice(0, space), family: name.slice(space + 1) }
}

/** No white space but single spaces between words. */
const isSingleSpaced = (text: string): boolean => !/\s\s|[^\S ]|^ | $/.test(text)

/** Full name as it is shown. */
export const joinName = ({ given, family }: PersonName): string => `${given} ${family}`.trim()

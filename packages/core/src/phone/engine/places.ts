import { remember } from '../../remember'
import { NAMES, ZONES } from './placeData'

interface Prefixes {
  readonly texts: ReadonlyMap<string, string>
  readonly longest: number
}

/** What the first digits of a number lead to; made when the first place is asked for. */
function prefixesOf(packed: string): () => Prefixes {
  let made: Prefixes | null = null
  return () => {
    made ??= unpack(packed)
    return made
  }
}

function unpack(packed: string): Prefixes {
  const texts = new Map<string, string>()
  let longest = 0
  for (const line of packed.split('\n')) {
    const equals = line.lastIndexOf('=')
    for (const digits of line.slice(equals + 1).split(',')) {
      texts.set(digits, line.slice(0, equals))
      longest = Math.max(longest, digits.length)
    }
  }
  return { texts, longest }
}

const zones = prefixesOf(ZONES)
const names = prefixesOf(NAMES)

/** The text of the most digits that lead anywhere. */
function textFor(digits: string, { texts, longest }: Prefixes): string | null {
  for (let length = Math.min(longest, digits.length); length > 0; length--) {
    const text = texts.get(digits.slice(0, length))
    if (text !== undefined) return text
  }
  return null
}

/**
 * Time zones (IANA) that a number with these digits may be in, calling code included: one for each clock, the one of
 * the most numbers first.
 */
export const zonesFor = (digits: string): readonly string[] => clocksOf(textFor(digits, zones()) ?? '')

const clocksOf = remember((text: string): readonly string[] => {
  if (text === '' || text === UNKNOWN_ZONE) return []
  const listed = [...text.split('&')].sort((a, b) => standsAlone(b) - standsAlone(a))
  const clocks = new Map(listed.toReversed().map((zone) => [clockOf(zone), zone] as const))
  return listed.filter((zone) => clocks.get(clockOf(zone)) === zone)
})

const UNKNOWN_ZONE = 'Etc/Unknown'

/** How large a share of all numbers is in this zone alone: the fewer digits lead there, the more. */
function standsAlone(zone: string): number {
  let share = 0
  for (const [digits, text] of zones().texts) if (text === zone) share += 10 ** -digits.length
  return share
}

/** What a zone's clocks show against UTC in winter and in summer. */
const clockOf = remember((zone: string): string => {
  const format = new Intl.DateTimeFormat('en', { timeZone: zone, timeZoneName: 'longOffset' })
  return [0, 6].map((month) => format.format(new Date(Date.UTC(2026, month, 1)))).join()
})

/** Name of the region that these digits belong to, calling code included; null where the plan tells none. */
export const nameFor = (digits: string): string | null => textFor(digits, names())

import { createHash } from 'node:crypto'
import { hashOf, isLikely, type World, type WorldCompany } from '../world'

/** A business as Thornwick lists it. */
export interface Listed {
  /** Its own id; pages follow each other by it. */
  readonly id: string
  readonly title: string
  readonly trade: string
  readonly address: { readonly line: string; readonly town: string; readonly code: string; readonly country: string }
  readonly telephone: string
  readonly mail: string | null
  readonly web: string | null
  readonly permanentlyClosed: boolean
  /** Where its telephone is answered, for a branch that has none of its own. */
  readonly headOffice: string | null
  /** SHA-256 of the number in E.164, as callers may name it. */
  readonly numberHash: string
}

/** Trades, and the kinds of businesses in each. */
export const TRADES: readonly {
  readonly code: string
  readonly name: string
  readonly kinds: readonly string[]
}[] = [
  { code: 'guest-houses', name: 'Guest houses and inns', kinds: ['Guest House', 'Gasthof', 'Lodge'] },
  { code: 'campsites', name: 'Campsites', kinds: ['Camping'] },
  { code: 'cafes', name: 'Cafés and terraces', kinds: ['Café', 'Terrasse'] },
  {
    code: 'garden-centres',
    name: 'Garden centres and nurseries',
    kinds: ['Gartencenter', 'Garden Centre', 'Nurseries'],
  },
  { code: 'lidos', name: 'Lidos and bathing places', kinds: ['Strandbad'] },
]

const CLOSED = 0.06
const TWICE = 0.08
const BRANCH = 0.05
const WITHOUT_MAIL = 0.3
const WITHOUT_SITE = 0.2

const tradeOf = ({ name }: WorldCompany) => TRADES.find(({ kinds }) => kinds.some((kind) => name.endsWith(` ${kind}`)))

/** Every business it lists, in the order of its ids: some twice, some closed, some with the number of their head office. */
export function listedIn(world: World): readonly Listed[] {
  return world.companies.flatMap((company, at) => {
    const trade = tradeOf(company)
    if (!trade) return []
    const office = isLikely(BRANCH, world.seed, 'thornwick branch', company.id)
      ? headOffice(world, at, trade.code)
      : null
    const one = listed(world, company, trade.code, office)
    return isLikely(TWICE, world.seed, 'thornwick twice', company.id) ? [one, again(one, company)] : [one]
  })
}

function listed({ seed }: World, company: WorldCompany, trade: string, office: WorldCompany | null): Listed {
  const { id, name, city, postalCode, place, domain, switchboard } = company
  const { e164 } = (office ?? company).switchboard
  return {
    id: idOf(id, 0),
    title: name,
    trade,
    address: {
      line: `${1 + (hashOf(`${seed}|street ${id}`) % 90)} ${streetOf(id)}`,
      town: city,
      code: postalCode,
      country: place.country,
    },
    telephone:
      office === null && id % 2 === 0 ? `${place.trunk}${switchboard.e164.slice(place.code.length + 1)}` : e164,
    mail: isLikely(WITHOUT_MAIL, seed, 'thornwick mail', id) ? null : `hello@${domain}`,
    web: isLikely(WITHOUT_SITE, seed, 'thornwick site', id) ? null : `https://www.${domain}/`,
    permanentlyClosed: isLikely(CLOSED, seed, 'thornwick closed', id),
    headOffice: office ? `${office.name}, ${office.city}` : null,
    numberHash: createHash('sha256').update(e164).digest('hex'),
  }
}

const idOf = (company: number, copy: number): string => `tw-${String(company).padStart(6, '0')}-${copy}`

const STREETS = ['Harbour Lane', 'Mill Street', 'Church Walk', 'Station Road', 'Quay', 'Hill Rise'] as const
const streetOf = (id: number): string => STREETS[id % STREETS.length] ?? 'High Street'

/** The same business a second time, written otherwise. */
const again = (one: Listed, { id, name, legalForm, switchboard }: WorldCompany): Listed => ({
  ...one,
  id: idOf(id, 1),
  title: `${name.toUpperCase()} ${legalForm}`,
  telephone: one.headOffice === null ? switchboard.e164 : one.telephone,
  mail: null,
})

/** Another house of the same trade in the same country. */
function headOffice({ companies }: World, at: number, trade: string): WorldCompany | null {
  const own = companies[at]
  return (
    companies.find((one, i) => i !== at && one.place.country === own?.place.country && tradeOf(one)?.code === trade) ??
    null
  )
}

import {
  type Destination,
  expectedMatch,
  type Forecast,
  forecastMatch,
  type IdentifierMix,
  kindsTaken,
  type MatchHistory,
  type Takes,
} from '@upper-field/core/send'
import type { Db } from '../db/database'
import { kept, num, readRows } from '../db/readRows'
import type { editions } from '../db/schema'
import { audienceOf } from './destinations'

/** Deliveries learnt from. */
const LEARNT_FROM = 12

/** What a network has told the size of, with what was in it: the latest last. Audiences of one kind are alike. */
export async function historyOf(db: Db, destination: string, takes: Takes): Promise<readonly MatchHistory[]> {
  const matches = await readRows(db, { mix: kept<IdentifierMix>, matched: num })`
    select mix, matched from (
      select distinct on (a.id) e.mix, d.matched, d.ended_at
      from deliveries d join audiences a on a.id = d.audience_id join editions e on e.id = d.edition_id
      where a.destination = ${destination} and a.takes = ${takes} and d.matched is not null and d.state = 'done' and d.refused_lines = 0
      order by a.id, d.ended_at desc) latest
    order by ended_at desc limit ${LEARNT_FROM}`
  return matches.toReversed()
}

/** How many of an edition are likely to match at its network. */
export async function forecastOf(
  db: Db,
  destination: Destination,
  { takes }: { readonly takes: Takes },
  { mix }: Pick<typeof editions.$inferSelect, 'mix'>,
): Promise<Forecast> {
  return forecastMatch(mix, await historyOf(db, destination.id, takes), kindsTaken(audienceOf(destination, takes)))
}

export interface SourceWorth {
  readonly kind: 'batch' | 'provider'
  readonly id: string
  readonly people: number
  /** Expected of them by what was told; of a provider, what would not match without what it found. */
  readonly matched: number
}

/** What each batch and each provider brings to an edition, by what the network has told. */
export function worthOf(
  { mixBySource }: Pick<typeof editions.$inferSelect, 'mixBySource'>,
  history: readonly MatchHistory[],
): readonly SourceWorth[] {
  return Object.entries(mixBySource).map(([source, { mix, without }]) => {
    const [kind, id] = source.split(' ') as ['batch' | 'provider', string]
    const all = expectedMatch(mix, history)
    return {
      kind,
      id,
      people: Object.values(mix).reduce((sum, n) => sum + n, 0),
      matched: Math.round(without === null ? all : all - expectedMatch(without, history)),
    }
  })
}

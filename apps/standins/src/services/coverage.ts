import { isLikely, type World, type WorldPerson } from '../world'

/** Coverage overlaps: one in so many is hard to find, for everybody. */
const HARD = 0.12

export interface Coverage {
  /** Of the people of these countries this share is known. */
  readonly home: { readonly countries: ReadonlySet<string>; readonly share: number }
  readonly elsewhere: number
  /** How much of its share is left of those who are hard to find. */
  readonly ofHard: number
}

/** Whether a service knows somebody: the same answer whenever it is asked. */
export function covers(
  world: World,
  service: string,
  person: WorldPerson,
  { home, elsewhere, ofHard }: Coverage,
): boolean {
  const isHard = isLikely(HARD, world.seed, 'hard to find', person.id)
  const share = home.countries.has(person.company.place.country) ? home.share : elsewhere
  return isLikely(share * (isHard ? ofHard : 1), world.seed, service, person.id)
}

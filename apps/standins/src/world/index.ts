export { type CompanyFacts, type Deliverability, deliverabilityOf, factsOfCompany } from './facts'
export { PLACES, type Place } from './places'
export { createRandom, hashOf, isLikely, type Random } from './random'
export {
  createWorld,
  plain,
  type World,
  type WorldCompany,
  type WorldConsumer,
  type WorldNumber,
  type WorldPerson,
} from './world'

/** A world large enough for demo files of so many rows together. The usual one is that of the usual files. */
export const worldFor = (rows: number): { seed: string; people: number; consumers: number } => ({
  seed: DEMO_WORLD.seed,
  people: Math.max(DEMO_WORLD.people, Math.round(rows * 0.43)),
  consumers: Math.max(DEMO_WORLD.consumers, Math.round(rows * 0.13)),
})

/** The world of the demo: stand-ins and demo files come from the same one. */
export const DEMO_WORLD = { seed: 'wrenfold', people: 2600, consumers: 800 } as const

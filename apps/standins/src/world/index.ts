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

/** The world of the demo: stand-ins and demo files come from the same one. */
export const DEMO_WORLD = { seed: 'wrenfold', people: 2600, consumers: 800 } as const

import type { AnswerItem } from './answer'
import type { Connector } from './connector'

const MICROS = 1_000_000

/** What one charge of a service is, in millionths of a euro. What is paid for already costs nothing more. */
export const priceOf = ({ charge, isPaidFor }: Pick<Connector, 'charge' | 'isPaidFor'>): number =>
  isPaidFor ? 0 : Math.round(charge.euros * MICROS)

/** True for an answer the service does not charge: one that says all of what its charge rule names as free. */
export const isFreeAnswer = ({ freeWhen = [] }: Connector['charge'], item: AnswerItem): boolean =>
  freeWhen.some((facts) => Object.entries(facts).every(([field, value]) => item[field as keyof AnswerItem] === value))

import type { Connector } from './connector'

const MICROS = 1_000_000

/** What one charge of a service is, in millionths of a euro. What is paid for already costs nothing more. */
export const priceOf = ({ charge, isPaidFor }: Pick<Connector, 'charge' | 'isPaidFor'>): number =>
  isPaidFor ? 0 : Math.round(charge.euros * MICROS)

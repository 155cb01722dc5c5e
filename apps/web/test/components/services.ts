import type { Connection } from '@upper-field/contract'

/** A service as it is connected, made up. */
export const service = (provider: string, more: Partial<Connection> = {}): Connection => ({
  provider,
  name: provider.charAt(0).toUpperCase() + provider.slice(1),
  about: '',
  role: 'provider',
  gives: ['mobile'],
  accepts: [],
  countries: null,
  baseUrl: 'http://127.0.0.1:1',
  hasKey: true,
  pricePer: 'call',
  price: 50_000,
  isPaidFor: false,
  changedAt: null,
  lastAnswerAt: null,
  failures: 0,
  spentThisMonth: 0,
  ...more,
})

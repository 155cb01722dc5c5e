import { isLostConnection } from '../db/errors'
import { logError } from '../http/problem'
import type { Services } from '../services'

/** Does what nobody waits for. What goes wrong is logged; whatever the database was away for is done the next time. */
export const byItself = (services: Services, work: (services: Services) => Promise<unknown>): Promise<unknown> =>
  work(services).catch((error: unknown) => {
    if (!isLostConnection(error)) logError('by itself', error)
  })

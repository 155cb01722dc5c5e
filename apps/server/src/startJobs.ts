import { advanceAutomations } from './automations/advance'
import type { Config } from './config'
import { sealAgain } from './connections/sealAgain'
import { indexLeftOut } from './contacts/indexLeftOut'
import { isLostConnection } from './db/errors'
import { forgetOldKeys } from './http/idempotency'
import { logError } from './http/problem'
import { jobHandlers } from './jobs/handlers'
import { startRunner } from './jobs/runner'
import { openServices } from './openServices'
import { lookAtAll } from './send/lookAt'
import { removeOverdue } from './send/owedRemovals'
import type { Services } from './services'
import { letExpiredGo } from './suppression/expiry'
import { deliverDue } from './webhooks/deliver'

/** How often is looked for what has to be done by itself, in milliseconds. */
const TIDY_UP_EVERY = 60_000

/** How often audiences are looked for whose network is to be asked how they stand, in milliseconds. */
const LOOK_EVERY = 1000

function byItself(services: Services, work: (services: Services) => Promise<unknown>): void {
  void work(services).catch((error: unknown) => {
    // Whatever the database was away for is done the next time.
    if (!isLostConnection(error)) logError('by itself', error)
  })
}

/**
 * Takes jobs from the queue until stopped; expired entries of suppression lists let go, old keys of calls go.
 * @param readers threads that read large files; without them this one does
 */
export async function startJobs(
  config: Config,
  { readers = null }: { readonly readers?: Services['readers'] } = {},
): Promise<{ stop(): Promise<void> }> {
  const services = openServices(config, 'jobs', { readers })
  const runner = await startRunner(services, jobHandlers)
  const tidyUp = () => {
    for (const work of [sealAgain, letExpiredGo, forgetOldKeys, indexLeftOut, removeOverdue]) byItself(services, work)
  }
  tidyUp()
  const clock = setInterval(tidyUp, TIDY_UP_EVERY)
  const looking = setInterval(() => byItself(services, lookAtAll), LOOK_EVERY)
  const telling = setInterval(() => byItself(services, deliverDue), LOOK_EVERY)
  const automating = setInterval(() => byItself(services, advanceAutomations), LOOK_EVERY)
  return {
    stop: async () => {
      clearInterval(clock)
      clearInterval(looking)
      clearInterval(telling)
      clearInterval(automating)
      await runner.stop()
      await readers?.close()
      await services.close()
    },
  }
}

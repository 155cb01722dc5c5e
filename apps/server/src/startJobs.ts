import { advanceAutomations } from './automations/advance'
import { READ_AHEAD, readAhead } from './bring/readAhead'
import type { Config } from './config'
import { sealAgain } from './connections/sealAgain'
import { indexLeftOut } from './contacts/indexLeftOut'
import { forgetOldKeys } from './http/idempotency'
import { byItself } from './jobs/byItself'
import { jobHandlers } from './jobs/handlers'
import { repeating } from './jobs/repeating'
import { startRunner } from './jobs/runner'
import { forgetOldCalls } from './machine/forgetOld'
import { openServices } from './openServices'
import { lookAtAll } from './send/lookAt'
import { removeOverdue } from './send/owedRemovals'
import type { Services } from './services'
import { letExpiredGo } from './suppression/expiry'
import { deliverDue } from './webhooks/deliver'

/** How often is looked for what has to be done by itself, in milliseconds. */
const TIDY_UP_EVERY = 60_000

/** How often is looked for audiences to be asked about, messages to be sent and automations to go on, in milliseconds. */
const LOOK_EVERY = 1000

/** What has to be done by itself, each beside the others. */
const TIDY_UP = [sealAgain, letExpiredGo, forgetOldKeys, forgetOldCalls, indexLeftOut, removeOverdue]
const LOOK = [lookAtAll, deliverDue, advanceAutomations]

/**
 * Takes jobs from the queue until stopped; expired entries of suppression lists let go, old keys of calls go.
 * @param readers threads that read large files; without them this one does
 */
export async function startJobs(
  config: Config,
  { readers = null }: { readonly readers?: Services['readers'] } = {},
): Promise<{ isIdle(): boolean; stop(): Promise<void> }> {
  const services = openServices(config, 'jobs', { readers })
  const runner = await startRunner(services, jobHandlers, {
    [READ_AHEAD]: (payload) => readAhead(services, (payload as { batchId: string }).batchId),
  })
  const stops = [
    ...TIDY_UP.map((work) => repeating(() => byItself(services, work), TIDY_UP_EVERY)),
    ...LOOK.map((work) => repeating(() => byItself(services, work), LOOK_EVERY)),
  ]
  return {
    isIdle: runner.isIdle,
    stop: async () => {
      await Promise.all([runner.stop(), ...stops.map((end) => end())])
      await readers?.close()
      await services.close()
    },
  }
}

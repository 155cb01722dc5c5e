import type { JobHandler, JobHandlers } from './runner'

/** Who does which kind of work. What a kind needs is loaded when the first job of it comes: a start need not wait for it. */
export const jobHandlers: JobHandlers = {
  'bring-in': loaded(async () => (await import('../bring/bringInJob')).bringInJob),
  harvest: loaded(async () => (await import('../harvest/harvestJob')).harvestJob),
  directory: loaded(async () => (await import('../directory/directoryJob')).directoryJob),
  'bring-back': loaded(async () => (await import('../bring/takeBackJob')).takeBackJob),
  'take-back': loaded(async () => (await import('../bring/takeBackJob')).takeBackJob),
  index: loaded(async () => (await import('../contacts/indexJob')).indexJob),
  check: loaded(async () => (await import('../check/checkJob')).checkJob),
  fill: loaded(async () => (await import('../fill/fillJob')).fillJob),
  mark: loaded(async () => (await import('../suppression/markLater')).markJob),
  facts: loaded(async () => (await import('../check/tellHolders')).factsJob),
  edition: loaded(async () => (await import('../send/editionJob')).editionJob),
  prepare: loaded(async () => (await import('../send/prepareJob')).prepareJob),
  deliver: loaded(async () => (await import('../send/deliverJob')).deliverJob),
  tidy: loaded(async () => (await import('../tidy/tidyJob')).tidyJob),
  pair: loaded(async () => (await import('../pair/pairJob')).pairJob),
}

function loaded(load: () => Promise<JobHandler>): JobHandler {
  let loading: Promise<JobHandler> | null = null
  const handler = () => {
    loading ??= load()
    return loading
  }
  return {
    step: async (services, job) => (await handler()).step(services, job),
    mayStop: async (services, job) => (await (await handler()).mayStop?.(services, job)) ?? null,
    ended: async (...how) => (await handler()).ended?.(...how),
  }
}

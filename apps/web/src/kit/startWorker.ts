/** What a worker of ours does. */
export type WorkerKind = 'addresses' | 'head' | 'suppression' | 'tidy'

/** Starts a worker. All are one script that loads what its name asks for, so that they share the data of the numbering plan. */
export const startWorker = (kind: WorkerKind): Worker =>
  new Worker(new URL('./worker.ts', import.meta.url), { type: 'module', name: kind })

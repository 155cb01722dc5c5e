import type { WorkerKind } from './startWorker'

const LOAD: Record<WorkerKind, () => Promise<unknown>> = {
  addresses: () => import('../harvest/addressWorker'),
  head: () => import('../bring/headWorker'),
  suppression: () => import('../suppression/suppressionWorker'),
  tidy: () => import('../tidy/tidyWorker'),
}

// What is asked before the script that answers is here is kept, and asked again then.
const asked: unknown[] = []
const keep = ({ data }: MessageEvent) => void asked.push(data)
self.addEventListener('message', keep)
void LOAD[self.name as WorkerKind]().then(() => {
  self.removeEventListener('message', keep)
  for (const data of asked) self.dispatchEvent(new MessageEvent('message', { data }))
})

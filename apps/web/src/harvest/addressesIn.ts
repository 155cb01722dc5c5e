import { startWorker } from '../kit/startWorker'
import type { AddressesRead, AddressQuestion } from './addressWorker'

/**
 * Addresses of pages in a column of a file of any kind that can be brought in, read in a web worker.
 * @param column null for the one that looks most like addresses of pages
 */
export function addressesIn(file: File, column: number | null = null): Promise<AddressesRead> {
  const worker = startWorker('addresses')
  return new Promise<AddressesRead>((resolve, reject) => {
    worker.addEventListener('message', ({ data }: MessageEvent<AddressesRead>) => resolve(data))
    worker.addEventListener('error', reject)
    worker.postMessage({ file, column } satisfies AddressQuestion)
  }).finally(() => worker.terminate())
}

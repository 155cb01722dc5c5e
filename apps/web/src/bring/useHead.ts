import type { Dialect, OpenedHead } from '@upper-field/core/table'
import { useEffect, useState } from 'react'
import type { HeadQuestion } from './headWorker'

/** Opens the head of a file in a web worker; null while it is being read. */
export function useHead(file: File, country: string | null, dialect: Partial<Dialect>): OpenedHead | null {
  const [opened, setOpened] = useState<OpenedHead | null>(null)
  const { encoding, delimiter } = dialect
  useEffect(() => {
    const worker = new Worker(new URL('./headWorker.ts', import.meta.url), { type: 'module' })
    worker.addEventListener('message', ({ data }: MessageEvent<OpenedHead>) => setOpened(data))
    const question: HeadQuestion = {
      file,
      country,
      dialect: { ...(encoding ? { encoding } : {}), ...(delimiter ? { delimiter } : {}) },
    }
    worker.postMessage(question)
    return () => worker.terminate()
  }, [file, country, encoding, delimiter])
  return opened
}

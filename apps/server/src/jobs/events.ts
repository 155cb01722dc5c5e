import { EventEmitter } from 'node:events'
import { Client } from 'pg'
import { JOB_CHANNEL } from './store'

/** Listens for changes of jobs, told by any process, and passes them on inside this one. */
export interface JobEvents {
  on(listener: (jobId: string) => void): () => void
  close(): Promise<void>
}

const RECONNECT = 1000

export async function listenForJobs(databaseUrl: string): Promise<JobEvents> {
  const emitter = new EventEmitter().setMaxListeners(0)
  let client: Client | null = null
  let isClosed = false
  // The database may be away for longer than one try.
  const again = (): void => {
    if (!isClosed) setTimeout(() => void connect().catch(again), RECONNECT)
  }
  const connect = async (): Promise<void> => {
    const next = new Client({ connectionString: databaseUrl })
    next.on('notification', ({ payload }) => emitter.emit('job', payload))
    next.on('error', () => {})
    next.on('end', () => {
      if (client === next) again()
    })
    try {
      await next.connect()
      await next.query(`listen ${JOB_CHANNEL}`)
      client = next
    } catch (error) {
      await next.end().catch(() => {})
      throw error
    }
  }
  await connect()
  return {
    on: (listener) => {
      emitter.on('job', listener)
      return () => void emitter.off('job', listener)
    },
    close: async () => {
      isClosed = true
      await client?.end()
    },
  }
}

import { EventEmitter } from 'node:events'
import { Client } from 'pg'
import { SESSION_CHANNEL } from '../people/sessionEvents'
import { JOB_CHANNEL } from './store'

/** Listens for what any process tells, and passes it on inside this one. */
export interface ServerEvents {
  /** Changes of jobs. @returns how to stop listening */
  onJob(listener: (jobId: string) => void): () => void
  /** Sessions that ended. @returns how to stop listening */
  onSessionEnd(listener: (sessionId: string) => void): () => void
  close(): Promise<void>
}

const RECONNECT = 1000

export async function listenForEvents(databaseUrl: string): Promise<ServerEvents> {
  const emitter = new EventEmitter().setMaxListeners(0)
  let client: Client | null = null
  let isClosed = false
  // The database may be away for longer than one try.
  const again = (): void => {
    if (!isClosed) setTimeout(() => void connect().catch(again), RECONNECT)
  }
  const connect = async (): Promise<void> => {
    const next = new Client({ connectionString: databaseUrl })
    next.on('notification', ({ channel, payload }) => emitter.emit(channel, payload))
    next.on('error', () => {})
    next.on('end', () => {
      if (client === next) again()
    })
    try {
      await next.connect()
      await next.query(`listen ${JOB_CHANNEL}; listen ${SESSION_CHANNEL}`)
      client = next
    } catch (error) {
      await next.end().catch(() => {})
      throw error
    }
  }
  await connect()
  const on = (channel: string) => (listener: (id: string) => void) => {
    emitter.on(channel, listener)
    return () => void emitter.off(channel, listener)
  }
  return {
    onJob: on(JOB_CHANNEL),
    onSessionEnd: on(SESSION_CHANNEL),
    close: async () => {
      isClosed = true
      await client?.end()
    },
  }
}

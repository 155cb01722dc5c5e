import type { Pool } from 'pg'
import type { Readers } from './bring/readers'
import type { Config } from './config'
import type { Db } from './db/database'
import type { CallLimits } from './http/callLimits'
import type { People } from './people/people'

/** What the rooms of the server share. No state: another process has the same. */
export interface Services {
  readonly config: Config
  readonly pool: Pool
  readonly db: Db
  /** Threads that read large files, where this process has any. */
  readonly readers: Readers | null
  readonly now: () => number
}

/** The same where calls are answered. */
export interface CallServices extends Services {
  readonly people: People
  readonly callLimits: CallLimits
}

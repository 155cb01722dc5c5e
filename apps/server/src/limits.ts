/** One bound of the application: what it bounds, in which unit, and what holds where nothing is set. */
export interface Limit {
  /** Name of the setting in the environment. */
  readonly setting: string
  readonly usual: number
  readonly unit: 'bytes' | 'seconds' | 'hours' | 'MB' | 'calls a minute' | 'rows an hour' | 'contacts' | 'at a time'
  /** What it keeps from happening; stands in `docs/security.md` word for word. */
  readonly bounds: string
}

const limit = (setting: string, usual: number, unit: Limit['unit'], bounds: string): Limit => ({
  setting,
  usual,
  unit,
  bounds,
})

/** Every limit and time-out of the server. Each can be set in the environment. */
export const LIMITS = {
  maxUploadBytes: limit('MAX_UPLOAD_BYTES', 1_073_741_824, 'bytes', 'A file that is brought in.'),
  uploads: limit('MAX_UPLOADS', 100, 'at a time', 'Files that arrive at one process at the same time.'),
  uploadIdleSeconds: limit('UPLOAD_IDLE_SECONDS', 60, 'seconds', 'How long an upload may send nothing.'),
  bodyBytes: limit('MAX_BODY_BYTES', 1_000_000, 'bytes', 'The body of a call.'),
  rowsBodyBytes: limit('MAX_ROWS_BODY_BYTES', 16_000_000, 'bytes', 'The body of a call that sends rows or lines.'),
  bodySeconds: limit('BODY_SECONDS', 30, 'seconds', 'How long the body of a call may take to arrive.'),
  connections: limit(
    'DATABASE_CONNECTIONS',
    16,
    'at a time',
    'Connections to the database for calls, and as many for jobs.',
  ),
  connectionSeconds: limit('CONNECTION_SECONDS', 5, 'seconds', 'How long a call waits for a connection.'),
  statementSeconds: limit('STATEMENT_SECONDS', 60, 'seconds', 'One statement of a call.'),
  jobStatementSeconds: limit('JOB_STATEMENT_SECONDS', 3600, 'seconds', 'One statement of a job.'),
  lockSeconds: limit('LOCK_SECONDS', 8, 'seconds', 'How long a call waits for a list that is being worked on.'),
  countSeconds: limit(
    'COUNT_SECONDS',
    0.1,
    'seconds',
    'How long a page waits for audiences to be counted; it tells what is being counted still.',
  ),
  hashesAmong: limit(
    'MAX_HASHES_AMONG',
    50_000,
    'contacts',
    'Among so many, whoever adds hashes to a suppression list waits until they are looked for; among more, jobs look for them.',
  ),
  jobsGrowthMegabytes: limit(
    'JOBS_GROWTH_MB',
    100,
    'MB',
    'What jobs may leave in memory: above it their process makes room for another one, once there is nothing to do.',
  ),
  unpackMegabytes: limit('UNPACK_MEMORY_MB', 512, 'MB', 'Memory for opening a workbook that can only be read whole.'),
  unpackSeconds: limit('UNPACK_SECONDS', 120, 'seconds', 'How long opening such a workbook may say nothing.'),
  tableBytes: limit('MAX_TABLE_BYTES', 4_294_967_296, 'bytes', 'The table that a workbook, cards or JSON unpack to.'),
  answerBytes: limit('MAX_ANSWER_BYTES', 4_000_000, 'bytes', 'The answer of a provider.'),
  answerSeconds: limit('ANSWER_SECONDS', 15, 'seconds', 'How long a provider may take to answer one call.'),
  lateAnswerSeconds: limit('LATE_ANSWER_SECONDS', 120, 'seconds', 'How long an answer by callback is waited for.'),
  pageBytes: limit('MAX_PAGE_BYTES', 2_000_000, 'bytes', 'A page that is read for numbers.'),
  pageSeconds: limit('PAGE_SECONDS', 20, 'seconds', 'How long a site may take for one page.'),
  pagesAtOnce: limit('PAGES_AT_ONCE', 4, 'at a time', 'Sites of one harvest that are read at the same time.'),
  pageDelaySeconds: limit(
    'PAGE_DELAY_SECONDS',
    1,
    'seconds',
    'How long is waited between two pages of a site that asks for no longer.',
  ),
  longestPageDelay: limit(
    'LONGEST_PAGE_DELAY_SECONDS',
    60,
    'seconds',
    'A site that asks for a longer wait between its pages is read no further than its first page.',
  ),
  harvestSites: limit('MAX_HARVEST_SITES', 10_000, 'at a time', 'Sites of contacts that one harvest reads.'),
  keepAliveSeconds: limit(
    'KEEP_ALIVE_SECONDS',
    10,
    'seconds',
    'How long a connection without a call stays open; longer than a proxy in front keeps it.',
  ),
  signIns: limit('SIGN_INS_PER_MINUTE', 8, 'calls a minute', 'Attempts to sign in from one address.'),
  setUps: limit('SET_UPS_PER_MINUTE', 5, 'calls a minute', 'Attempts to make the first owner from one address.'),
  readRows: limit('READ_ROWS_PER_HOUR', 200_000, 'rows an hour', 'Contacts and suppression entries one person reads.'),
  idempotencyHours: limit('IDEMPOTENCY_HOURS', 24, 'hours', 'How long the answer to an Idempotency-Key is kept.'),
  underWaySeconds: limit(
    'UNDER_WAY_SECONDS',
    120,
    'seconds',
    'After so long a keyed call without an answer was cut off.',
  ),
} as const satisfies Record<string, Limit>

export type LimitName = keyof typeof LIMITS
export type Limits = Readonly<Record<LimitName, number>>

export const LIMIT_NAMES = Object.keys(LIMITS) as LimitName[]

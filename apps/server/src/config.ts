import { z } from 'zod'
import { LIMIT_NAMES, LIMITS, type Limits } from './limits'

/** One or several, separated by commas: the first is used, the others are still understood. */
const Secrets = z
  .string()
  .transform((text) => text.split(',').map((one) => one.trim()))
  .refine(
    (all) => all.every((one) => one.length >= 32),
    'Each secret has at least 32 characters; a comma parts one from the next.',
  )

/** An address without a path, since the application is at the top of its own; a slash at its end is no matter. */
const Origin = z
  .url({ protocol: /^https?$/ })
  .refine(
    (address) => URL.canParse(address) && `${new URL(address).origin}/` === new URL(address).href,
    'It must be an address without a path.',
  )
  .transform((address) => new URL(address).origin)

const Environment = z.object({
  DATABASE_URL: z.string(),
  HOST: z.string().default('127.0.0.1'),
  PORT: z.coerce.number().int().min(0).max(65535).default(4600),
  /** Signs sessions, the addresses of callbacks and the code of the first owner. */
  SESSION_SECRET: Secrets,
  /** Seals the keys of providers. */
  SEALING_SECRET: Secrets,
  /** Address under which browsers and providers reach the application. */
  PUBLIC_URL: Origin.optional(),
  /** Header in which a proxy in front of this server says who calls, such as `x-forwarded-for`. */
  TRUSTED_PROXY_HEADER: z
    .string()
    .regex(/^[A-Za-z0-9-]+$/)
    .optional(),
  /** Set only by the demo: offers the made-up operator and makes its account. */
  DEMO: z.enum(['0', '1']).default('0'),
  /** Outgoing requests to private addresses, for stand-ins on this machine. */
  ALLOW_PRIVATE_ADDRESSES: z.enum(['0', '1']).default('0'),
  /** Outgoing requests without encryption. */
  ALLOW_PLAIN_HTTP: z.enum(['0', '1']).default('0'),
  /**
   * Where sites under `.example` are reached, a name that no real site has (RFC 2606): the made-up web of the demo. No
   * other site on a private address is ever read.
   */
  EXAMPLE_WEB: z.url().optional(),
  /** Threads that read large files; without it as many as the machine has cores to spare. */
  READING_THREADS: z.coerce.number().int().min(0).max(64).optional(),
  WEB_DIR: z.string().optional(),
})

export interface Config {
  readonly databaseUrl: string
  readonly host: string
  readonly port: number
  /** The first signs; what the others have signed is still taken. */
  readonly sessionSecrets: readonly [string, ...string[]]
  /** The first seals; what the others have sealed is still opened. */
  readonly sealingSecrets: readonly [string, ...string[]]
  /** Without a slash at its end. */
  readonly publicUrl: string | null
  readonly trustedProxyHeader: string | null
  readonly isDemo: boolean
  readonly allowsPrivateAddresses: boolean
  readonly allowsPlainHttp: boolean
  readonly exampleWeb: string | null
  /** Null for as many as there are cores to spare. */
  readonly readingThreads: number | null
  readonly webDir: string | null
  readonly limits: Limits
}

/** Reads the settings from the environment. Throws where one is missing or makes no sense, naming it. */
export function readConfig(environment: Record<string, string | undefined>): Config {
  const parsed = Environment.safeParse(environment)
  if (!parsed.success) throw new Error(`Settings: ${z.prettifyError(parsed.error)}`)
  const env = parsed.data
  if (env.SESSION_SECRET[0] === env.SEALING_SECRET[0])
    throw new Error('Settings: SESSION_SECRET and SEALING_SECRET must differ.')
  const isLocal = ['127.0.0.1', 'localhost', '::1'].includes(env.HOST)
  if (!isLocal && env.PUBLIC_URL === undefined)
    throw new Error('Settings: PUBLIC_URL must be set where HOST is reached from other machines.')
  return {
    databaseUrl: env.DATABASE_URL,
    host: env.HOST,
    port: env.PORT,
    sessionSecrets: env.SESSION_SECRET as [string, ...string[]],
    sealingSecrets: env.SEALING_SECRET as [string, ...string[]],
    publicUrl: env.PUBLIC_URL ?? null,
    trustedProxyHeader: env.TRUSTED_PROXY_HEADER?.toLowerCase() ?? null,
    isDemo: env.DEMO === '1',
    allowsPrivateAddresses: env.ALLOW_PRIVATE_ADDRESSES === '1',
    allowsPlainHttp: env.ALLOW_PLAIN_HTTP === '1',
    exampleWeb: env.EXAMPLE_WEB ?? null,
    readingThreads: env.READING_THREADS ?? null,
    webDir: env.WEB_DIR ?? null,
    limits: readLimits(environment),
  }
}

const Positive = z.coerce.number().positive()

function readLimits(environment: Record<string, string | undefined>): Limits {
  return Object.fromEntries(
    LIMIT_NAMES.map((name) => {
      const { setting, usual } = LIMITS[name]
      const given = Positive.safeParse(environment[setting] ?? usual)
      if (!given.success) throw new Error(`Settings: ${setting} must be a number above zero.`)
      return [name, given.data]
    }),
  ) as Limits
}

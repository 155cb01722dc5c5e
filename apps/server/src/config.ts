import { z } from 'zod'

const Environment = z.object({
  DATABASE_URL: z.string(),
  HOST: z.string().default('127.0.0.1'),
  PORT: z.coerce.number().int().min(0).max(65535).default(4600),
  /** Signs sessions and seals provider keys. At least 32 characters. */
  SECRET: z.string().min(32),
  /** Address under which browsers and providers reach the application. */
  PUBLIC_URL: z.url().optional(),
  MAX_UPLOAD_BYTES: z.coerce.number().int().positive().default(1_073_741_824),
  /** Set only by the demo: offers the made-up operator and makes its account. */
  DEMO: z.enum(['0', '1']).default('0'),
  /** Outgoing requests to private addresses, for stand-ins on this machine. */
  ALLOW_PRIVATE_ADDRESSES: z.enum(['0', '1']).default('0'),
  WEB_DIR: z.string().optional(),
  /** How long a late answer is waited for, in seconds. */
  LATE_ANSWER_SECONDS: z.coerce.number().positive().default(120),
})

export interface Config {
  readonly databaseUrl: string
  readonly host: string
  readonly port: number
  readonly secret: string
  readonly publicUrl: string | null
  readonly maxUploadBytes: number
  readonly isDemo: boolean
  readonly allowsPrivateAddresses: boolean
  readonly webDir: string | null
  readonly lateAnswerSeconds: number
}

/** Reads the settings from the environment. Throws where one is missing or makes no sense, naming it. */
export function readConfig(environment: Record<string, string | undefined>): Config {
  const parsed = Environment.safeParse(environment)
  if (!parsed.success) throw new Error(`Settings: ${z.prettifyError(parsed.error)}`)
  const env = parsed.data
  return {
    databaseUrl: env.DATABASE_URL,
    host: env.HOST,
    port: env.PORT,
    secret: env.SECRET,
    publicUrl: env.PUBLIC_URL ?? null,
    maxUploadBytes: env.MAX_UPLOAD_BYTES,
    isDemo: env.DEMO === '1',
    allowsPrivateAddresses: env.ALLOW_PRIVATE_ADDRESSES === '1',
    webDir: env.WEB_DIR ?? null,
    lateAnswerSeconds: env.LATE_ANSWER_SECONDS,
  }
}

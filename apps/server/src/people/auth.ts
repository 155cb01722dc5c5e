import type { Me, Role } from '@upper-field/contract'
import { betterAuth } from 'better-auth'
import { drizzleAdapter } from 'better-auth/adapters/drizzle'
import { count, eq } from 'drizzle-orm'
import type { Config } from '../config'
import type { Db } from '../db/database'
import { account, rateLimit, session, user, verification } from '../db/schema'

/** Header that the server itself sets from the socket; a caller's own is thrown away. */
export const CLIENT_HEADER = 'x-upper-field-client'

export interface NewAccount {
  readonly name: string
  readonly email: string
  readonly password: string
  readonly role: Role
}

export interface People {
  handler(request: Request): Promise<Response>
  whoIs(headers: Headers): Promise<Me | null>
  hasAnyone(): Promise<boolean>
  add(account: NewAccount): Promise<Me>
  findByEmail(email: string): Promise<Me | null>
  signIn(credentials: { email: string; password: string }): Promise<Response>
}

/** Sign-in by e-mail and password, kept by better-auth: sessions in the database, attempts limited per client. */
export function createPeople(db: Db, config: Config): People {
  const auth = createAuth(db, config)
  const find = async (email: string) => {
    const [found] = await db.select().from(user).where(eq(user.email, email.toLowerCase()))
    return found ? asMe(found) : null
  }
  return {
    handler: (request) => auth.handler(request),
    whoIs: async (headers) => {
      const found = await auth.api.getSession({ headers })
      return found ? asMe(found.user) : null
    },
    hasAnyone: async () => ((await db.select({ n: count() }).from(user))[0]?.n ?? 0) > 0,
    findByEmail: find,
    add: async ({ name, email, password, role }) => {
      const context = await auth.$context
      const made = await context.internalAdapter.createUser(
        { name, email: email.toLowerCase(), role, emailVerified: false },
        { method: 'email-password' },
      )
      const hashed = await context.password.hash(password)
      await context.internalAdapter.linkAccount({
        userId: made.id,
        providerId: 'credential',
        accountId: made.id,
        password: hashed,
      })
      return asMe({ ...made, role })
    },
    signIn: (credentials) => auth.api.signInEmail({ body: credentials, asResponse: true }),
  }
}

const asMe = (found: { id: string; name: string; email: string; role?: unknown }): Me => ({
  id: found.id,
  name: found.name,
  email: found.email,
  role: (found.role ?? 'viewer') as Role,
})

function createAuth(db: Db, config: Config) {
  return betterAuth({
    appName: 'Upper Field',
    secret: config.secret,
    baseURL: config.publicUrl ?? `http://${config.host}:${config.port}`,
    basePath: '/api/auth',
    database: drizzleAdapter(db, { provider: 'pg', schema: { user, session, account, verification, rateLimit } }),
    emailAndPassword: { enabled: true, disableSignUp: true, minPasswordLength: 10, maxPasswordLength: 128 },
    user: { additionalFields: { role: { type: 'string', input: false, defaultValue: 'viewer' } } },
    session: { expiresIn: 60 * 60 * 24 * 14, updateAge: 60 * 60 * 24 },
    rateLimit: {
      enabled: true,
      storage: 'database',
      window: 60,
      max: 600,
      customRules: { '/sign-in/email': { window: 60, max: 8 } },
    },
    advanced: {
      cookiePrefix: 'upper-field',
      ipAddress: { ipAddressHeaders: [CLIENT_HEADER] },
      defaultCookieAttributes: { httpOnly: true, sameSite: 'lax' },
    },
    telemetry: { enabled: false },
    logger: { disabled: true },
  })
}

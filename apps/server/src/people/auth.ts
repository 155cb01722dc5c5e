import { betterAuth } from 'better-auth'
import { drizzleAdapter } from 'better-auth/adapters/drizzle'
import { and, eq, gt, ne, sql } from 'drizzle-orm'
import type { Pool } from 'pg'
import type { Config } from '../config'
import type { Db } from '../db/database'
import { isThereAlready } from '../db/errors'
import { account, rateLimit, session, user, verification } from '../db/schema'
import { Problem } from '../http/problem'
import {
  asMe,
  changeRole,
  endSession,
  findByEmail,
  hasAnyone,
  listPeople,
  openSessions,
  removePerson,
  withOwnersLock,
} from './accounts'
import { refuseGuessable } from './passwords'
import type { NewAccount, People } from './people'
import { announceEnded } from './sessionEvents'

/** Header that the server itself sets from the socket; a caller's own is thrown away. */
export const CLIENT_HEADER = 'x-upper-field-client'

/** Calls of the library that are let through: everything else of it is done by calls of our own. */
export const AUTH_CALLS = ['/api/auth/sign-in/email', '/api/auth/sign-out', '/api/auth/get-session'] as const

/** Sign-in by e-mail and password, kept by better-auth: sessions in the database, attempts limited per client. */
export function createPeople({ pool, db }: { pool: Pool; db: Db }, config: Config): People {
  const auth = createAuth(db, config)
  const add = async ({ name, email, password, role }: NewAccount) => {
    refuseGuessable(password, [name, email])
    const context = await auth.$context
    const made = await context.internalAdapter
      .createUser({ name, email: email.toLowerCase(), role, emailVerified: false }, { method: 'email-password' })
      .catch((cause: unknown) => {
        throw isThereAlready(cause) ? emailTaken() : cause
      })
    const hashed = await context.password.hash(password)
    await context.internalAdapter.linkAccount({
      userId: made.id,
      providerId: 'credential',
      accountId: made.id,
      password: hashed,
    })
    return asMe({ ...made, role })
  }
  const whoIs: People['whoIs'] = async (headers) => {
    const found = await auth.api.getSession({ headers })
    return found
      ? { me: asMe({ ...found.user, role: found.user.role ?? 'viewer' }), sessionId: found.session.id }
      : null
  }
  return {
    handler: (request) => auth.handler(request),
    whoIs,
    hasAnyone: () => hasAnyone(db),
    findByEmail: (email) => findByEmail(db, email),
    add,
    // The lock is held on another connection than the library writes on: it only keeps others from coming between.
    addFirst: (owner) =>
      withOwnersLock(pool, async () => ((await hasAnyone(db)) ? null : add({ ...owner, role: 'owner' }))),
    signIn: (credentials, headers) => auth.api.signInEmail({ body: credentials, headers, asResponse: true }),
    list: () => listPeople(db),
    changeRole: (personId, role) => changeRole(pool, personId, role),
    remove: (personId) => removePerson(pool, personId),
    changePassword: async (headers, change) => {
      const found = await whoIs(headers)
      if (!found) throw new Problem(401, 'not-signed-in', 'Sign in first.')
      refuseGuessable(change.new, [found.me.name, found.me.email])
      const body = { currentPassword: change.old, newPassword: change.new }
      await auth.api.changePassword({ headers, body }).catch((cause: unknown) => {
        throw new Problem(403, 'wrong-password', 'The old password is another one. Nothing was changed.', { cause })
      })
      await endOthers(db, found.me.id, found.sessionId)
    },
    sessions: (personId) => openSessions(db, personId),
    endSession: (sessionId, ofPerson) => endSession(pool, sessionId, ofPerson),
  }
}

const emailTaken = () => new Problem(409, 'email-taken', 'There is an account with this e-mail already.')

/** Whoever is signed in elsewhere with the old password is signed out. */
async function endOthers(db: Db, personId: string, keptSessionId: string): Promise<void> {
  const ended = await db
    .delete(session)
    .where(and(eq(session.userId, personId), ne(session.id, keptSessionId), gt(session.expiresAt, sql`now()`)))
    .returning({ id: session.id })
  for (const { id } of ended) await announceEnded(db, id)
}

function createAuth(db: Db, config: Config) {
  const [secret] = config.sessionSecrets
  return betterAuth({
    appName: 'Upper Field',
    secret,
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
      customRules: { '/sign-in/email': { window: 60, max: config.limits.signIns } },
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

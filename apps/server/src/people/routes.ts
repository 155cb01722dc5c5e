import type { Hono } from 'hono'
import { clientOf } from '../http/client'
import { notFound, Problem } from '../http/problem'
import { serve } from '../http/serve'
import type { CallServices } from '../services'
import { CLIENT_HEADER } from './auth'
import { DEMO_OPERATOR, demoPassword } from './demoOperator'
import { isSetupCode } from './setupCode'

export function peopleRoutes(app: Hono, services: CallServices): void {
  const { people, config, callLimits } = services
  const [secret] = config.sessionSecrets
  const ownerExists = () => new Problem(409, 'owner-exists', 'The owner has been made already. Sign in instead.')

  serve(app, services, 'readSetup', async () => ({
    needsOwner: !(await people.hasAnyone()),
    demo: config.isDemo ? { name: DEMO_OPERATOR.name } : null,
  }))

  serve(app, services, 'makeOwner', async ({ body, c }) => {
    await callLimits.setUp(clientOf(c, config))
    if (await people.hasAnyone()) throw ownerExists()
    if (!isSetupCode(secret, body.code)) {
      throw new Problem(403, 'wrong-code', 'This is not the code that was printed where the application was started.')
    }
    const made = await people.addFirst({ name: body.name, email: body.email, password: body.password })
    if (!made) throw ownerExists()
    return made
  })

  serve(app, services, 'enterDemo', async ({ c }) => {
    if (!config.isDemo) throw new Problem(404, 'no-demo', 'This is not the demo.')
    await callLimits.enterDemo(clientOf(c, config))
    const headers = new Headers({
      'user-agent': c.req.header('user-agent') ?? '',
      [CLIENT_HEADER]: clientOf(c, config),
    })
    return people.signIn({ email: DEMO_OPERATOR.email, password: demoPassword(secret) }, headers)
  })

  serve(app, services, 'readMe', async ({ me }) => me)

  serve(app, services, 'changePassword', async ({ body, c }) => {
    await people.changePassword(c.req.raw.headers, body)
    return {}
  })

  serve(app, services, 'readPeople', async () => [...(await people.list())])

  serve(app, services, 'addPerson', ({ body }) => people.add(body))

  serve(app, services, 'changePerson', ({ params, body }) => people.changeRole(params.personId, body.role))

  serve(app, services, 'removePerson', async ({ params }) => {
    await people.remove(params.personId)
    return {}
  })

  serve(app, services, 'readSessions', async ({ me, sessionId }) =>
    (await people.sessions(me.role === 'owner' ? null : me.id)).map((one) => ({
      ...one,
      isThis: one.id === sessionId,
    })),
  )

  serve(app, services, 'endSession', async ({ params, me }) => {
    if (!(await people.endSession(params.sessionId, me.role === 'owner' ? null : me.id))) throw notFound('session')
    return {}
  })
}

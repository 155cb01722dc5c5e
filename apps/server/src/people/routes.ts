import type { Hono } from 'hono'
import { Problem } from '../http/problem'
import { serve } from '../http/serve'
import type { Services } from '../services'
import { DEMO_OPERATOR, demoPassword } from './demoOperator'
import { isSetupCode } from './setupCode'

export function peopleRoutes(app: Hono, services: Services): void {
  const { people, config } = services

  serve(app, services, 'readSetup', async () => ({
    needsOwner: !(await people.hasAnyone()),
    demo: config.isDemo ? { name: DEMO_OPERATOR.name } : null,
  }))

  serve(app, services, 'makeOwner', async ({ body }) => {
    if (await people.hasAnyone())
      throw new Problem(409, 'owner-exists', 'The owner has been made already. Sign in instead.')
    if (!isSetupCode(config.secret, body.code)) {
      throw new Problem(403, 'wrong-code', 'This is not the code that was printed where the application was started.')
    }
    return people.add({ name: body.name, email: body.email, password: body.password, role: 'owner' })
  })

  serve(app, services, 'enterDemo', async () => {
    if (!config.isDemo) throw new Problem(404, 'no-demo', 'This is not the demo.')
    return people.signIn({ email: DEMO_OPERATOR.email, password: demoPassword(config.secret) })
  })

  serve(app, services, 'readMe', async ({ me }) => me)

  serve(app, services, 'addPerson', async ({ body }) => {
    if (await people.findByEmail(body.email))
      throw new Problem(409, 'email-taken', 'There is an account with this e-mail already.')
    return people.add(body)
  })
}

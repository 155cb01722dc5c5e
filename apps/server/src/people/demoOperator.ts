import { createHmac } from 'node:crypto'
import type { CallServices } from '../services'

/** The made-up person the demo is entered as. */
export const DEMO_OPERATOR = { name: 'Maud Ostrander', email: 'maud@wrenfold.example', role: 'owner' } as const

/** Known to this installation only, so that a demo left running offers no known password. */
export const demoPassword = (secret: string): string =>
  createHmac('sha256', secret).update('demo operator').digest('hex').slice(0, 12)

export async function ensureDemoOperator({ people, config }: Pick<CallServices, 'people' | 'config'>): Promise<void> {
  if (await people.findByEmail(DEMO_OPERATOR.email)) return
  await people.add({ ...DEMO_OPERATOR, password: demoPassword(config.sessionSecrets[0]) })
}

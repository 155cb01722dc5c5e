import { createHmac, timingSafeEqual } from 'node:crypto'
import { inputFor, type ProviderTerms } from '@upper-field/core/fill'
import { z } from 'zod'
import type { Config } from '../config'
import { openConnection } from '../connections/client'
import type { Services } from '../services'
import type { WantingContact } from './wanting'

export const Candidates = z.array(z.object({ number: z.string().max(200), score: z.number().min(0).max(100) })).max(20)
export type Candidates = z.infer<typeof Candidates>

const Answer = z.object({ candidates: Candidates })
const Receipt = z.object({ request: z.string() })

export type Asked = { readonly status: 'answered'; readonly candidates: Candidates } | { readonly status: 'late' }

/** Asks one provider about one contact. Asking again with the same attempt gives the same answer and no second charge. */
export async function askProvider(
  services: Services,
  provider: ProviderTerms,
  contact: WantingContact,
  attemptId: string,
): Promise<Asked> {
  const client = await openConnection(services, provider.id)
  const input = inputFor(provider, contact)
  const person = {
    name: contact.fullName,
    company: contact.company,
    domain: contact.domain,
    ...(input === 'profile' ? { profile: contact.profile } : {}),
    country: contact.country,
  }
  if (provider.answers === 'at-once') {
    const { candidates } = await client.call(Answer, {
      method: 'POST',
      path: `/${provider.id}/v1/find`,
      body: { person },
      idempotencyKey: attemptId,
    })
    return { status: 'answered', candidates }
  }
  const callback = callbackUrl(services.config, attemptId)
  await client.call(Receipt, {
    method: 'POST',
    path: `/${provider.id}/v1/requests`,
    body: { person, callback },
    idempotencyKey: attemptId,
  })
  return { status: 'late' }
}

/** Tells a provider that charges for accepted values that its value was one. */
export async function reportAccepted(services: Services, provider: ProviderTerms, attemptId: string): Promise<void> {
  if (provider.charge.per !== 'accepted') return
  const client = await openConnection(services, provider.id)
  await client.call(z.unknown(), {
    method: 'POST',
    path: `/${provider.id}/v1/accepted`,
    body: { reference: attemptId },
    idempotencyKey: `${attemptId}:accepted`,
  })
}

const signatureOf = (secret: string, attemptId: string): string =>
  createHmac('sha256', secret).update(`callback ${attemptId}`).digest('hex').slice(0, 32)

function callbackUrl(config: Config, attemptId: string): string {
  const base = config.publicUrl ?? `http://${config.host}:${config.port}`
  return `${base}/api/v1/callbacks/${attemptId}/${signatureOf(config.sessionSecrets[0], attemptId)}`
}

/** Only whom we told the address can answer for an attempt; addresses told under an earlier secret go on working. */
export function isSignature(secrets: readonly string[], attemptId: string, signature: string): boolean {
  const given = Buffer.from(signature)
  return secrets.some((secret) => {
    const expected = Buffer.from(signatureOf(secret, attemptId))
    return given.length === expected.length && timingSafeEqual(given, expected)
  })
}

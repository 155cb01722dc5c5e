import { createHmac, timingSafeEqual } from 'node:crypto'
import type { AnswerItem } from '@upper-field/core/connect'
import { inputFor } from '@upper-field/core/fill'
import type { Config } from '../config'
import { callbackAddress } from '../connections/callbackAddress'
import { type Asked, openConnection } from '../connections/client'
import type { Services } from '../services'
import type { WantingContact } from './wanting'

/** A number a provider gave, as it was written there, how sure it is (0 to 100), and of whom it is said to be. */
export interface Candidate {
  readonly number: string
  readonly score: number
  readonly name: string
}

/** The numbers among the items of an answer, the best first. */
export function candidatesIn(items: readonly AnswerItem[]): Candidate[] {
  const candidates = items.flatMap(({ number, score, name }): Candidate[] =>
    number === undefined
      ? []
      : [{ number: String(number).slice(0, 200), score: scoreOf(score), name: String(name ?? '') }],
  )
  return candidates.sort((a, b) => b.score - a.score)
}

const scoreOf = (score: AnswerItem['score']): number => Math.min(100, Math.max(0, Number(score ?? 0) || 0))

/** Asks one provider about one contact. Asking again with the same attempt gives the same answer and no second charge. */
export async function askProvider(
  services: Services,
  providerId: string,
  contact: WantingContact,
  attemptId: string,
): Promise<Asked> {
  const client = await openConnection(services, providerId)
  const isByProfile = inputFor(client.connector, contact) === 'profile'
  const values = {
    name: contact.fullName,
    company: contact.company,
    domain: contact.domain,
    email: contact.email,
    country: contact.country,
    ...(isByProfile ? { profile: contact.profile } : {}),
    reference: attemptId,
    callback: callbackUrl(services.config, attemptId),
  }
  return client.ask(values, attemptId)
}

/** Looks for the answer of an attempt that came with a receipt. */
export async function lookForAnswer(services: Services, providerId: string, receipt: string): Promise<Asked> {
  const client = await openConnection(services, providerId)
  return client.look(client.connector.one, receipt)
}

/** Tells a provider that charges for accepted values that its value was one. */
export async function reportAccepted(services: Services, providerId: string, attemptId: string): Promise<void> {
  const client = await openConnection(services, providerId)
  await client.report({ reference: attemptId }, `${attemptId}:accepted`)
}

const signatureOf = (secret: string, attemptId: string): string =>
  createHmac('sha256', secret).update(`callback ${attemptId}`).digest('hex').slice(0, 32)

const callbackUrl = (config: Config, attemptId: string): string =>
  callbackAddress(config, attemptId, signatureOf(config.sessionSecrets[0], attemptId))

/** Only whom we told the address can answer for an attempt; addresses told under an earlier secret go on working. */
export function isSignature(secrets: readonly string[], attemptId: string, signature: string): boolean {
  const given = Buffer.from(signature)
  return secrets.some((secret) => {
    const expected = Buffer.from(signatureOf(secret, attemptId))
    return given.length === expected.length && timingSafeEqual(given, expected)
  })
}

import { createHmac, timingSafeEqual } from 'node:crypto'
import type { AnswerItem } from '@upper-field/core/connect'
import { inputFor, type PersonInput } from '@upper-field/core/fill'
import type { Config } from '../config'
import { callbackAddress } from '../connections/callbackAddress'
import { type Asked, type Connection, openConnection } from '../connections/client'
import type { Services } from '../services'
import type { WantingContact } from './wanting'

/** A value a provider gave, as it was written there, how sure it is (0 to 100), and of whom it is said to be. */
export interface Candidate {
  readonly raw: string
  readonly score: number
  readonly name: string
  /** What the provider itself says of an address. */
  readonly deliverability: string | null
}

/** The numbers or addresses among the items of an answer, the best first. */
export function candidatesIn(items: readonly AnswerItem[], field: 'number' | 'email'): Candidate[] {
  const candidates = items.flatMap((item): Candidate[] => {
    const raw = item[field]
    if (raw === undefined || raw === '') return []
    return [
      {
        raw: String(raw).slice(0, 320),
        score: scoreOf(item.score),
        name: String(item.name ?? ''),
        deliverability: item.deliverability === undefined ? null : String(item.deliverability),
      },
    ]
  })
  return candidates.sort((a, b) => b.score - a.score)
}

const scoreOf = (score: AnswerItem['score']): number => Math.min(100, Math.max(0, Number(score ?? 0) || 0))

/** Connections of a step, each opened once. */
export type Connections = (provider: string) => Promise<Connection>

export function openConnections(services: Services): Connections {
  const opened = new Map<string, Promise<Connection>>()
  return (provider) => {
    const known = opened.get(provider) ?? openConnection(services, provider)
    opened.set(provider, known)
    return known
  }
}

/** Asks one provider about one contact. Asking again with the same attempt gives the same answer and no second charge. */
export async function askProvider(
  { config }: Services,
  client: Connection,
  contact: WantingContact,
  { id: attemptId, inputs }: { readonly id: string; readonly inputs: readonly PersonInput[] },
): Promise<Asked> {
  const isByProfile = inputFor(client.connector, contact, inputs) === 'profile'
  const values = {
    name: contact.fullName,
    company: contact.company,
    domain: contact.domain,
    email: contact.email,
    country: contact.country,
    ...(isByProfile ? { profile: contact.profile } : {}),
    reference: attemptId,
    callback: callbackUrl(config, attemptId),
  }
  return client.ask(values, attemptId)
}

/** Looks for the answer of an attempt that came with a receipt. */
export const lookForAnswer = (client: Connection, receipt: string): Promise<Asked> =>
  client.look(client.connector.one, receipt)

/** Tells a provider that charges for accepted values that its value was one. */
export const reportAccepted = (client: Connection, attemptId: string): Promise<void> =>
  client.report({ reference: attemptId }, `${attemptId}:accepted`)

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

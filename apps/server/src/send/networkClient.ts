import type { Call } from '@upper-field/core/connect'
import {
  type Destination,
  type NetworkAccount,
  type NetworkCalls,
  type NetworkValue,
  networkTemplates,
  readAccounts,
  readAudienceState,
  readText,
  type ToldState,
} from '@upper-field/core/send'
import { eq } from 'drizzle-orm'
import { beforeTry, parse, TRIES } from '../connections/client'
import { checkAddress } from '../connections/outgoing'
import { unsealWithAny } from '../connections/seal'
import { type Called, type Sent, send } from '../connections/send'
import { destinationKeys } from '../db/schema'
import { JobProblem } from '../jobs/jobProblem'
import type { Services } from '../services'

type Values = Readonly<Partial<Record<NetworkValue, unknown>>>

/** A network said no: its code. Nothing of what was asked was done. */
export class NetworkRefused extends Error {
  constructor(readonly code: string) {
    super(code)
  }
}

/** The network no longer knows what was asked about. */
export const GONE = 'no-such-audience'

/**
 * A network as it is called. Every call that changes something takes a key that makes it safe to repeat. All throw
 * `NetworkRefused`, or a job problem where the network cannot be asked.
 */
export interface NetworkClient {
  readonly calls: NetworkCalls
  accounts(): Promise<readonly NetworkAccount[]>
  /** @returns the id that the answer tells */
  make(values: Values, key: string): Promise<string>
  begin(values: Values, key: string): Promise<string | null>
  part(call: Call, values: Values, key: string): Promise<void>
  finish(values: Values, key: string): Promise<void>
  state(audience: string): Promise<ToldState>
  remove(audience: string): Promise<void>
  /** A call of the declaration that makes something else; @returns its id */
  makeBy(call: { readonly call: Call; readonly id: string }, values: Values, key: string): Promise<string>
  ask(call: Call, values: Values): Promise<unknown>
}

/** Opens the way to a network. Throws a job problem where there is no key, or it is only written files for. */
export async function openNetwork(services: Services, destination: Destination): Promise<NetworkClient> {
  const { db, config } = services
  const [row] = await db.select().from(destinationKeys).where(eq(destinationKeys.destination, destination.id))
  if (!row || !destination.network) throw new JobProblem('no-connection')
  const opened = unsealWithAny(row.sealedKey, config.sealingSecrets)
  if (!opened) throw new JobProblem('key-unreadable')
  await checkAddress(row.address, config).catch((cause) => {
    throw new JobProblem('address-refused', { cause })
  })
  const { key, limit } = destination.network
  return clientOf(destination.network, {
    connector: { id: destination.id, key, limit },
    baseUrl: row.address,
    secret: opened.text,
    config,
  })
}

function clientOf(calls: NetworkCalls, called: Called): NetworkClient {
  const ask = (call: Call, values: Values, key: string | null) => askOnce(calls, called, call, values, key)
  const makeBy: NetworkClient['makeBy'] = async ({ call, id }, values, key) =>
    known(readText(id, await ask(call, values, key)))
  return {
    calls,
    accounts: async () => known(readAccounts(calls.accounts, await ask(calls.accounts.call, {}, null))),
    make: (values, key) => makeBy(calls.make, values, key),
    begin: async (values, key) => (calls.begin ? makeBy(calls.begin, values, key) : null),
    part: async (call, values, key) => void (await ask(call, values, key)),
    finish: async (values, key) => {
      if (calls.finish) await ask(calls.finish, values, key)
    },
    state: async (audience) => known(readAudienceState(calls.state, await ask(calls.state.call, { audience }, null))),
    remove: async (audience) => {
      if (calls.remove) await ask(calls.remove, { audience }, null)
    },
    makeBy,
    ask: (call, values) => ask(call, values, null),
  }
}

function known<T>(told: T | null): T {
  if (told === null) throw new JobProblem('odd-answer')
  return told
}

async function askOnce(
  calls: NetworkCalls,
  called: Called,
  call: Call,
  values: Values,
  key: string | null,
): Promise<unknown> {
  const request = networkTemplates.build(call, values)
  for (let attempt = 1; ; attempt++) {
    const sent = await send(called, request, key)
    if (sent.is === 'answer' && sent.status < 300) return sent.text === '' ? {} : readJson(sent.text)
    const isLater = sent.is === 'unsent' || (sent.is === 'answer' && calls.tryLater.includes(sent.status))
    if (!isLater) throw whyNot(calls, sent)
    if (attempt >= TRIES) throw new JobProblem(sent.is === 'unsent' ? sent.problem : 'provider-failed')
    await beforeTry(attempt, sent.is === 'answer' ? sent.retryAfter : null)
  }
}

/** Whatever answers with a page instead of JSON is not the network: nothing counts as taken by it. */
function readJson(text: string): unknown {
  const json = parse(text)
  if (json === undefined) throw new JobProblem('odd-answer')
  return json
}

function whyNot({ refusals }: NetworkCalls, sent: Sent): Error {
  if (sent.is !== 'answer') return new JobProblem('answer-too-large')
  if (sent.status === 401) return new JobProblem('key-refused')
  const code = readText(refusals.code, parse(sent.text))
  return new NetworkRefused(sent.status === 404 || sent.status === 410 ? GONE : (code ?? `answer ${sent.status}`))
}

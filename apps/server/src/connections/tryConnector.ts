import type { ConnectorTried } from '@upper-field/contract'
import {
  buildRequest,
  type Connector,
  isFreeAnswer,
  type RequestValues,
  readItems,
  readState,
} from '@upper-field/core/connect'
import { costOfAnswer } from '@upper-field/core/fill'
import { charges } from '../db/schema'
import type { Services } from '../services'
import { callbackAddress } from './callbackAddress'
import { meaningOf, parse } from './client'
import { termsOf } from './connectors'
import { send, type Target } from './send'

/** So much of an answer is shown, in characters. */
const SHOWN = 20_000

/** Asks a service one question, once, and tells everything of it but the key. What it costs is booked without a list. */
export async function tryConnector(
  services: Services,
  target: Target,
  values: RequestValues,
  question: string,
): Promise<ConnectorTried> {
  const { connector } = target
  const request = buildRequest(connector.one.call, {
    // One record of a directory is enough to see what it tells.
    ...(connector.directory ? { size: 1 } : {}),
    knownRecords: [],
    knownNumbers: [],
    ...values,
    reference: question,
    // Nobody waits for this one: what is brought there is not taken.
    callback: callbackAddress(target.config, 'a-try', 'unsigned'),
  })
  const sent = await send(target, request, question)
  const meant = meaningOf(connector, sent)
  const made = meant.is === 'answer' ? madeOf(connector, meant.text) : NOTHING_MADE
  const isAnswered = meant.is === 'answer' || meant.is === 'nothing'
  const charged = isAnswered ? costOf(connector, made.items) : 0
  if (charged > 0) await book(services, connector, question, charged)
  return {
    request: {
      method: request.method,
      url: `${new URL(target.baseUrl).origin}${request.path}`,
      headers: { ...request.headers },
      body: request.body,
    },
    status: sent.is === 'answer' ? sent.status : null,
    raw: sent.is === 'answer' ? sent.text.slice(0, SHOWN) : '',
    items: [...made.items],
    problem: 'problem' in meant ? meant.problem : made.problem,
    isLater: made.isLater,
    charged,
  }
}

const costOf = (connector: Connector, items: ConnectorTried['items']): number =>
  costOfAnswer(termsOf(connector), {
    candidates: items.filter((item) => !isFreeAnswer(connector.charge, item)).length,
    accepted: false,
    deliverable: items.filter(({ deliverability }) => deliverability === 'deliverable').length,
  })

interface Made {
  readonly items: ConnectorTried['items']
  readonly problem: string | null
  readonly isLater: boolean
}

const NOTHING_MADE: Made = { items: [], problem: null, isLater: false }

function madeOf(connector: Connector, text: string): Made {
  const { answers } = connector.one
  const json = parse(text)
  if (answers.how === 'callback') return { ...NOTHING_MADE, isLater: true }
  if (answers.how === 'polling') {
    const { status } = readState(answers, json)
    if (status !== 'ready')
      return { ...NOTHING_MADE, isLater: status === 'working', problem: status === 'odd' ? 'odd-answer' : null }
  }
  const read = readItems(connector, connector.one, json, connector.directory?.perPage)
  return read.status === 'odd'
    ? { ...NOTHING_MADE, problem: read.problem }
    : { items: read.items.map((item) => ({ ...item })), problem: null, isLater: false }
}

const book = async ({ db, now }: Services, { id }: Connector, question: string, amount: number): Promise<void> => {
  await db
    .insert(charges)
    .values({ provider: id, subject: 'a try', question, amount, reason: 'a try', at: new Date(now()) })
    .onConflictDoNothing()
}

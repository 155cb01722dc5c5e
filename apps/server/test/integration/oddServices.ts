import { createServer, type IncomingMessage, type ServerResponse } from 'node:http'
import type { TestServer } from './harness'

/** A call as a service of ours meets it. */
export interface Met {
  readonly method: string
  readonly path: string
  readonly key: string
  readonly body: Record<string, unknown>
}

export type Answering = (met: Met, response: ServerResponse) => void | Promise<void>

export interface OddServices {
  readonly url: string
  /** Everything that was asked, in order. */
  readonly met: Met[]
  stop(): Promise<void>
}

/** Services that answer as a test wants them to. Their address and a key are set in the application. */
export async function startOddServices(server: TestServer, answer: Answering): Promise<OddServices> {
  const met: Met[] = []
  const http = createServer((request, response) => {
    void readJson(request).then(async (body) => {
      const call = {
        method: request.method ?? '',
        path: request.url ?? '',
        key: String(request.headers['idempotency-key'] ?? ''),
        body,
      }
      met.push(call)
      await answer(call, response)
    })
  }).listen(0, '127.0.0.1')
  await new Promise((resolve) => http.once('listening', resolve))
  const address = http.address()
  const url = `http://127.0.0.1:${typeof address === 'object' ? address?.port : 0}`
  for (const provider of ['pellow', 'tansy', 'brindle'])
    await server.api.call('changeConnection', {
      params: { provider },
      body: { baseUrl: url, key: `key of ${provider}` },
    })
  return {
    url,
    met,
    stop: () =>
      new Promise((resolve) => {
        http.closeAllConnections()
        http.close(() => resolve())
      }),
  }
}

async function readJson(request: IncomingMessage): Promise<Record<string, unknown>> {
  let text = ''
  for await (const chunk of request) text += chunk
  return text === '' ? {} : JSON.parse(text)
}

export function answerJson(response: ServerResponse, json: unknown, status = 200): void {
  response.writeHead(status, { 'content-type': 'application/json' })
  response.end(JSON.stringify(json))
}

/** What a line register says of a number that is a mobile in service. */
export const mobileLine = (number: string) => ({
  number,
  lineType: 'mobile',
  status: 'in-service',
  carrier: 'Fernline',
  ported: false,
  timeZone: 'Europe/London',
  lastSeen: null,
})

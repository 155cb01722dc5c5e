import { createServer, type Server, type ServerResponse } from 'node:http'
import { afterAll, beforeAll, describe, expect, it } from '@jest/globals'
import { Webhook } from 'standardwebhooks'
import { forgetOldCalls } from '../../src/machine/forgetOld'
import { bringText, newList, startTestServer, type TestServer } from './harness'
import { until } from './until'

interface Taken {
  readonly headers: Record<string, string>
  readonly body: string
}

/** A program that is told: it answers as it is set. */
let receiver: Server
let answers = 200
const hanging: ServerResponse[] = []
let isHanging = true
const taken: Taken[] = []
let server: TestServer
let url = ''
beforeAll(async () => {
  receiver = createServer((request, response) => {
    let body = ''
    request.on('data', (part) => {
      body += part
    })
    request.on('end', () => {
      taken.push({ headers: request.headers as Record<string, string>, body })
      // A program that hangs takes messages, and never says so.
      if (request.url === '/hangs' && isHanging) return void hanging.push(response)
      response.writeHead(answers, { 'content-type': 'text/plain' }).end(answers === 200 ? 'thanks' : 'not now')
    })
  })
  await new Promise<void>((resolve) => receiver.listen(0, '127.0.0.1', resolve))
  const address = receiver.address()
  url = `http://127.0.0.1:${typeof address === 'object' && address ? address.port : 0}/told`
  server = await startTestServer()
})
afterAll(async () => {
  await server.stop()
  receiver.close()
})

const messagesOf = (webhookId: string) => server.api.call('readWebhookMessages', { params: { webhookId } })

describe('a webhook', () => {
  it('is told of a batch and of whom a list suppresses: signed, with ids and nothing of a person', async () => {
    const listId = await newList(server.api)
    const { webhook, secret } = await server.api.call('makeWebhook', {
      body: { url, events: ['batch.ready', 'contact.suppressed'], listId },
    })
    await bringText(server.api, listId, 'name,phone\nMaren Oldershaw,+44 7911 204481')
    const { id } = await server.api.call('makeSuppressionList', { body: { name: 'Out', kind: 'opt-outs' } })
    await server.api.call('addSuppressionEntries', {
      params: { suppressionListId: id },
      body: { text: '+447911204481', reason: 'asked' },
    })
    await until(async () => taken.length === 2)
    const told = taken.map(({ body, headers }) => new Webhook(secret).verify(body, headers) as Record<string, unknown>)
    expect(told.map(({ type }) => type).sort()).toEqual(['batch.ready', 'contact.suppressed'])
    expect(told.find(({ type }) => type === 'batch.ready')).toMatchObject({ data: { listId, rows: 1, held: 0 } })
    expect(taken.map(({ body }) => body).join()).not.toMatch(/Oldershaw|7911/)
    expect(() => new Webhook(secret).verify(`${taken[0]?.body} `, taken[0]?.headers ?? {})).toThrow()
    const kept = await messagesOf(webhook.id)
    expect(kept).toMatchObject(Array(2).fill({ state: 'sent', tries: 1, status: 200, answer: 'thanks' }))
    const stored = await server.sql<{ secret: string }>('select secret from webhooks')
    expect(stored[0]?.secret).not.toContain(secret.slice(8))
  })

  it('that answers 500 is told again later, under the same id, and by hand', async () => {
    answers = 500
    const listId = await newList(server.api)
    const { webhook } = await server.api.call('makeWebhook', { body: { url, events: ['batch.ready'], listId } })
    await bringText(server.api, listId, 'name,phone\nTom,+44 7911 204482')
    const [first] = await (async () => {
      await until(async () => (await messagesOf(webhook.id))[0]?.tries === 1)
      return messagesOf(webhook.id)
    })()
    expect(first).toMatchObject({ state: 'waiting', status: 500, problem: 'not-taken', answer: 'not now' })
    expect(Date.parse(first?.nextAt ?? '')).toBeGreaterThan(Date.now())
    // A day of it: after the last of its tries it has failed, and stays to be sent by hand.
    await server.sql('update webhook_messages set tries = 10, next_at = now() where id = $1', [first?.id])
    await until(async () => (await messagesOf(webhook.id))[0]?.state === 'failed')
    answers = 200
    await server.api.call('sendWebhookAgain', { params: { messageId: first?.id ?? '' } })
    await until(async () => (await messagesOf(webhook.id))[0]?.state === 'sent')
    const ids = taken.map(({ headers }) => headers['webhook-id']).filter((id) => id === first?.id)
    expect(ids).toHaveLength(3)
    expect((await server.api.call('readWebhooks')).find(({ id }) => id === webhook.id)).toMatchObject({
      failed: 0,
      waiting: 0,
    })
  })

  it('that does not answer keeps no other waiting, and is sent a message once at a time', async () => {
    const listId = await newList(server.api)
    const body = { events: ['batch.ready' as const], listId }
    const { webhook: hangs } = await server.api.call('makeWebhook', {
      body: { ...body, url: url.replace('told', 'hangs') },
    })
    for (let i = 0; i < 3; i++) await bringText(server.api, listId, `name,phone\nTom,+44 7911 2044${90 + i}`)
    await until(async () => hanging.length === 3)
    const { webhook: answersAtOnce } = await server.api.call('makeWebhook', { body: { ...body, url } })
    await bringText(server.api, listId, 'name,phone\nTom,+44 7911 204499')
    await until(async () => (await messagesOf(answersAtOnce.id))[0]?.state === 'sent')
    expect((await messagesOf(hangs.id)).filter(({ state }) => state === 'sent')).toEqual([])
    // On a slow machine the first may have been given up, and sent again under its id: never twice at the same time.
    const open = hanging.filter(({ destroyed }) => !destroyed).map(({ req }) => req.headers['webhook-id'])
    expect(new Set(open).size).toBe(open.length)
    isHanging = false
    for (const response of hanging) response.end()
    await until(async () => (await messagesOf(hangs.id)).every(({ state, tries }) => state === 'sent' || tries > 0))
  })

  it('keeps what it was told for ninety days, and when it was told last for good', async () => {
    const listId = await newList(server.api)
    const { webhook } = await server.api.call('makeWebhook', { body: { url, events: ['batch.ready'], listId } })
    for (let i = 0; i < 3; i++) await bringText(server.api, listId, `name,phone\nTom,+44 7911 2045${10 + i}`)
    await until(async () => (await messagesOf(webhook.id)).filter(({ state }) => state === 'sent').length === 3)
    const [latest, second, first] = await messagesOf(webhook.id)
    const age = (id: string | undefined, days: number) =>
      server.sql('update webhook_messages set made_at = now() - make_interval(days => $2) where id = $1', [id, days])
    await age(first?.id, 91)
    await age(second?.id, 89)
    await forgetOldCalls(server.services)
    expect((await messagesOf(webhook.id)).map(({ id }) => id)).toEqual([latest?.id, second?.id])
    await age(latest?.id, 300)
    await age(second?.id, 400)
    await forgetOldCalls(server.services)
    expect((await messagesOf(webhook.id)).map(({ id }) => id)).toEqual([latest?.id])
    const [told] = (await server.api.call('readWebhooks')).filter(({ id }) => id === webhook.id)
    expect(told?.lastSentAt).not.toBeNull()
  })

  it('that is switched off or removed is told nothing', async () => {
    const listId = await newList(server.api)
    const body = { url, events: ['batch.ready' as const], listId }
    const { webhook } = await server.api.call('makeWebhook', { body })
    await server.api.call('changeWebhook', { params: { webhookId: webhook.id }, body: { isOn: false } })
    await bringText(server.api, listId, 'name,phone\nTom,+44 7911 204483')
    expect(await messagesOf(webhook.id)).toEqual([])
    await server.api.call('removeWebhook', { params: { webhookId: webhook.id } })
    expect((await server.api.call('readWebhooks')).map(({ id }) => id)).not.toContain(webhook.id)
  })
})

describe('where private addresses are not called', () => {
  it('a webhook there is refused when it is made', async () => {
    const strict = await startTestServer({ ALLOW_PRIVATE_ADDRESSES: '0', ALLOW_PLAIN_HTTP: '0' })
    const make = (to: string) => strict.api.call('makeWebhook', { body: { url: to, events: ['batch.ready'] } })
    await expect(make('https://127.0.0.1/told')).rejects.toMatchObject({ code: 'address-refused' })
    await expect(make('http://heron.example/told')).rejects.toMatchObject({ message: /with encryption/ })
    await expect(make('ftp://heron.example/told')).rejects.toMatchObject({ code: 'address-refused' })
    await strict.stop()
  })
})

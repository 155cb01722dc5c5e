import { createHash } from 'node:crypto'
import { afterAll, beforeAll, describe, expect, it } from '@jest/globals'
import { deviceOf, NETWORK_NAMES } from '../src/networks'
import { networkKeysOf, type StandIns, startStandIns } from '../src/server'
import { createWorld, factsOfCompany } from '../src/world'

const WORLD = { seed: 'networks', people: 1200, consumers: 1200 }
const world = createWorld(WORLD.seed, WORLD)
const sha256 = (text: string) => createHash('sha256').update(text).digest('hex')
let standIns: StandIns

beforeAll(async () => {
  standIns = await startStandIns({ port: 0, ...WORLD, keys: networkKeysOf((name) => name), speed: 100_000 })
})
afterAll(() => standIns.stop())

async function call<T>(
  path: string,
  body?: object,
  { once = String(crypto.randomUUID()), key = path.split('/')[1] } = {},
) {
  const response = await fetch(standIns.url + path, {
    method: body ? 'POST' : 'GET',
    headers: { authorization: `Bearer ${key}`, 'content-type': 'application/json', 'idempotency-key': once },
    ...(body ? { body: JSON.stringify(body) } : {}),
  })
  return { status: response.status, json: (await response.json()) as T }
}

const HEADINGS = ['mail', 'line']
const rowsOf = (from: number, to: number) =>
  world.consumers.slice(from, to).map(({ personalEmail, mobile }) => [sha256(personalEmail), sha256(mobile.e164)])
const put = (table: string, rows: readonly (readonly string[])[], once?: string, op = 'put') =>
  call<{ rows: number }>(`/brassbell/tables/${table}/rows`, { op, headings: HEADINGS, rows }, once ? { once } : {})
async function newTable(use = 'aim', account = 'bb-4410') {
  const { status, json } = await call<{ table: string; why?: string }>(`/brassbell/accounts/${account}/tables`, {
    title: crypto.randomUUID(),
    use,
  })
  return { status, ...json }
}
const booksOf = (table: string) =>
  standIns
    .network('brassbell')
    .books()
    .find(({ id }) => id === table)

describe('a network', () => {
  it.each(NETWORK_NAMES)('%s wants its key', async (name) => {
    const path = { brassbell: '/accounts', northpin: '/me/accounts', tallow: '/accounts', marlpost: '/accounts' }[name]
    expect((await call(`/${name}${path}`, undefined, { key: 'another' })).status).toBe(401)
    expect((await call(`/${name}${path}`)).status).toBe(200)
  })

  it('says why an account may not', async () => {
    expect(await newTable('aim', 'bb-1002')).toMatchObject({ status: 422, why: 'no-payment' })
    expect(await newTable('aim', 'nobody')).toMatchObject({ status: 404, why: 'no-such-account' })
    const show = { account: '70-305', label: 'x', for: 'show', days: 10 }
    expect((await call('/northpin/lists', show)).json).toEqual({ refusal: { code: 'exclude-only' } })
    expect((await call('/northpin/lists', { ...show, for: 'hide' })).status).toBe(200)
    expect((await call('/northpin/lists', { ...show, for: 'hide', days: 500 })).json).toEqual({
      refusal: { code: 'kept-too-long' },
    })
  })

  it('takes a part once, however often it comes, and takes out who is pulled', async () => {
    const { table } = await newTable()
    for (let i = 0; i < 3; i++) expect((await put(table, rowsOf(0, 40), `${table} first`)).json).toEqual({ rows: 40 })
    expect(booksOf(table)).toMatchObject({ lines: 40, parts: 1, odd: 0 })
    await put(table, rowsOf(10, 20), undefined, 'pull')
    expect(booksOf(table)).toMatchObject({ lines: 30, odd: 0 })
    // Sent twice under two keys, and taken out where it is not: its books tell.
    await put(table, rowsOf(0, 5))
    await put(table, rowsOf(10, 12), undefined, 'pull')
    expect(booksOf(table)?.odd).toBe(7)
  })

  it('refuses what it cannot compare, and what is too large', async () => {
    const { table } = await newTable()
    expect(await put(table, [['', '']])).toMatchObject({ status: 422, json: { why: 'line-without-identifier' } })
    expect(await put(table, Array(5001).fill(['a', 'b']))).toMatchObject({ json: { why: 'part-too-large' } })
    expect(await put('unknown', rowsOf(0, 1))).toMatchObject({ status: 404, json: { why: 'no-such-audience' } })
    expect(booksOf(table)?.lines).toBe(0)
  })

  it('matches by real comparing, tells sizes from 500 on, and rounded', async () => {
    const { table } = await newTable()
    await put(table, rowsOf(0, 300))
    await call(`/brassbell/tables/${table}/close`, {})
    const state = () => call<{ now: string; people: number | null }>(`/brassbell/tables/${table}`)
    await new Promise<void>((resolve, reject) => {
      const look = async () =>
        (await state()).json.now === 'ready' ? resolve() : setTimeout(() => void look().catch(reject), 5)
      void look().catch(reject)
    })
    expect((await state()).json.people).toBeNull()
    const share = (booksOf(table)?.matched ?? 0) / 300
    expect(share).toBeGreaterThan(0.65)
    expect(share).toBeLessThan(0.95)
    await put(table, rowsOf(300, 1200))
    const told = (await state()).json.people ?? 0
    expect(told % 10).toBe(0)
    expect(Math.abs(told - (booksOf(table)?.matched ?? 0))).toBeLessThanOrEqual(5)
  })

  it('matches work addresses seldom, devices and pages nearly always', async () => {
    const share = async (network: 'tallow' | 'marlpost', id: string, n: number) => {
      const held = standIns
        .network(network)
        .books()
        .find((one) => one.id === id)
      return (held?.matched ?? 0) / n
    }
    const made = async (purpose: string) =>
      (await call<{ data: { id: string } }>('/tallow/audiences', { account: 't.wren', name: purpose, purpose: 'aim' }))
        .json.data.id
    const work = await made('work')
    await call(`/tallow/audiences/${work}/add`, {
      people: world.people.slice(0, 500).map(({ workEmail }) => ({ e: workEmail })),
    })
    expect(await share('tallow', work, 500)).toBeLessThan(0.2)
    const devices = await made('devices')
    await call(`/tallow/audiences/${devices}/add`, {
      people: world.consumers.slice(0, 500).map(({ id }) => ({ d: deviceOf(world.seed, id) })),
    })
    expect(await share('tallow', devices, 500)).toBeGreaterThan(0.65)
    const asked = { account: '5090', name: 'pages', of: 'companies', inside: '', use: 'aim' }
    const { segment } = (await call<{ segment: string }>('/marlpost/segments', asked)).json
    const { upload } = (await call<{ upload: string }>(`/marlpost/segments/${segment}/uploads`, {})).json
    const rows = world.companies.slice(0, 400).map((company) => [factsOfCompany(world, company).page])
    await call(`/marlpost/segments/${segment}/uploads/${upload}/rows`, { headings: ['page'], rows })
    expect(await share('marlpost', segment, 400)).toBe(0)
    await call(`/marlpost/segments/${segment}/uploads/${upload}/commit`, {})
    expect(await share('marlpost', segment, 400)).toBeGreaterThan(0.8)
  })

  it('lets membership lapse, and shows what it holds on its page', async () => {
    const asked = { account: '70-221', label: 'Short', for: 'show', days: 5 }
    const { list } = (await call<{ list: { id: string } }>('/northpin/lists', asked)).json
    const csv = `letter box\r\n${world.consumers
      .slice(0, 50)
      .map(({ personalEmail }) => sha256(personalEmail))
      .join('\r\n')}\r\n`
    await call(`/northpin/lists/${list.id}/sheets`, { do: 'plus', csv })
    await call(`/northpin/lists/${list.id}/done`, {})
    const later = () => fetch(`${standIns.url}/world/later/30`, { method: 'POST', redirect: 'manual' })
    expect((await later()).status).toBe(303)
    const { json } = await call<{ list: { status: number; size: number | null } }>(`/northpin/lists/${list.id}`)
    expect(json.list).toMatchObject({ status: 9, size: null })
    const page = await (await fetch(`${standIns.url}/world`)).text()
    expect(page).toContain('Short')
    expect(page).toContain('no-payment')
  })
})

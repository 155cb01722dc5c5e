import { createHash } from 'node:crypto'
import { afterAll, beforeAll, describe, expect, it } from '@jest/globals'
import { type StandIns, startStandIns } from '../src/server'

const KEY = 'key-thornwick'
let outside: StandIns
beforeAll(async () => {
  outside = await startStandIns({ port: 0, seed: 'hedges', people: 3000, keys: { thornwick: KEY }, speed: 1000 })
})
afterAll(() => outside.stop())

interface Business {
  readonly id: string
  readonly title: string
  readonly telephone: string
  readonly headOffice: string | null
  readonly permanentlyClosed: boolean
  readonly address: { readonly town: string; readonly country: string }
}
interface Page {
  readonly businesses: readonly Business[]
  readonly omitted: number
  readonly price: number
  readonly next: string | null
}
interface Known {
  readonly records?: readonly string[]
  readonly numbers?: readonly string[]
}

const QUESTION = { trade: 'guest-houses', place: 'GB' }
const call = async <T>(path: string, body: object | null = null, key: string = crypto.randomUUID()) => {
  const response = await fetch(`${outside.url}/thornwick${path}`, {
    method: body === null ? 'GET' : 'POST',
    headers: { authorization: `Bearer ${KEY}`, 'idempotency-key': key },
    ...(body === null ? {} : { body: JSON.stringify(body) }),
  })
  return { status: response.status, json: (await response.json()) as T }
}
const pageOf = async (
  after: string,
  { known = {}, limit = 50, key }: { known?: Known; limit?: number; key?: string } = {},
) => (await call<Page>('/v1/businesses', { ...QUESTION, after, limit, known }, key)).json
const count = async (known: Known = {}) =>
  (await call<{ count: number; known: number; price: number }>('/v1/count', { ...QUESTION, known })).json

/** Every page, one after the other. */
async function pagesOf(known: Known = {}): Promise<readonly Page[]> {
  const pages: Page[] = []
  for (let after = ''; pages.length < 50; ) {
    const page = await pageOf(after, { known })
    pages.push(page)
    if (page.next === null) return pages
    after = page.next
  }
  throw new Error('there is no last page')
}
const all = async (known: Known = {}) => (await pagesOf(known)).flatMap(({ businesses }) => businesses)
const e164Of = ({ telephone }: Business) => (telephone.startsWith('+') ? telephone : `+44${telephone.slice(1)}`)
const hashOf = (business: Business) => createHash('sha256').update(e164Of(business)).digest('hex')
const charged = () => outside.charged().thornwick

describe('Thornwick', () => {
  it('looks trades and places up by any part of their name, with and without accents', async () => {
    const named = async (what: 'trades' | 'places', search: string) =>
      (await call<Record<string, { code: string; name: string }[]>>(`/v1/${what}?q=${encodeURIComponent(search)}`))
        .json[what] ?? []
    expect(await named('trades', 'guest')).toEqual([{ code: 'guest-houses', name: 'Guest houses and inns' }])
    expect(await named('trades', 'CAFES')).toEqual([{ code: 'cafes', name: 'Cafés and terraces' }])
    expect((await named('places', 'munchen')).map(({ name }) => name)).toEqual(['München, Deutschland'])
    expect((await named('places', 'germany'))[0]).toEqual({ code: 'DE', name: 'Deutschland' })
    expect(await named('trades', 'quarries')).toEqual([])
    expect((await named('places', 'a')).length).toBeLessThanOrEqual(20)
  })

  it('lists as many as it counts, each once, in pages of fifty', async () => {
    const pages = await pagesOf()
    const businesses = pages.flatMap((page) => page.businesses)
    expect(businesses).toHaveLength((await count()).count)
    expect(new Set(businesses.map(({ id }) => id)).size).toBe(businesses.length)
    expect(pages.slice(0, -1).map((page) => page.businesses.length)).toEqual(Array(pages.length - 1).fill(50))
    expect(businesses.every(({ address }) => address.country === 'GB')).toBe(true)
  })

  it('has doubles, closed businesses and branches of a head office among them', async () => {
    const businesses = await all()
    const copies = businesses.filter(({ id }) => id.endsWith('-1'))
    expect(copies.length).toBeGreaterThan(0)
    for (const copy of copies) {
      const first = businesses.find(({ id }) => id === copy.id.replace(/1$/, '0'))
      expect([first && e164Of(first), copy.title.startsWith((first?.title ?? '?').toUpperCase())]).toEqual([
        e164Of(copy),
        true,
      ])
    }
    expect(businesses.some(({ permanentlyClosed }) => permanentlyClosed)).toBe(true)
    const [branch] = businesses.filter(({ headOffice }) => headOffice !== null)
    const office = businesses.find(({ title, address }) => branch?.headOffice === `${title}, ${address.town}`)
    expect(office && e164Of(office)).toBe(branch && e164Of(branch))
  })

  it('neither tells nor charges what is named as known, by its own ids or by hashes of numbers', async () => {
    const businesses = await all()
    const [first, second] = businesses.filter(({ headOffice, id }) => headOffice === null && id.endsWith('-0'))
    if (!first || !second) throw new Error('there are too few')
    const known = { records: [first.id], numbers: [hashOf(second)] }
    const left = businesses.filter((one) => one.id !== first.id && e164Of(one) !== e164Of(second))
    expect(await count(known)).toMatchObject({ count: businesses.length, known: businesses.length - left.length })
    const before = charged()
    const pages = await pagesOf(known)
    expect(pages.flatMap((page) => page.businesses)).toEqual(left)
    expect(pages.reduce((sum, { omitted }) => sum + omitted, 0)).toBe(businesses.length - left.length)
    expect(charged().count - before.count).toBe(left.length)
    expect(charged().total - before.total).toBe(left.length * 60_000)
  })

  it('answers and charges a call once, however often it is repeated', async () => {
    const key = crypto.randomUUID()
    const before = charged().total
    const told = await pageOf('', { limit: 3, key })
    // Whatever is known by then: the answer is the one that was paid.
    expect(await pageOf('', { limit: 3, key, known: { records: told.businesses.map(({ id }) => id) } })).toEqual(told)
    expect(charged().total - before).toBe(3 * told.price * 1_000_000)
  })

  it.each<[string, object, number]>([
    ['a trade it does not know', { trade: 'quarries', place: 'GB' }, 422],
    ['a place it does not know', { trade: 'cafes', place: 'GB/Nowhere' }, 422],
    ['more than a page', { ...QUESTION, limit: 51 }, 400],
    ['nothing', { ...QUESTION, limit: 0 }, 400],
  ])('refuses %s, for nothing', async (_, question, status) => {
    const before = charged()
    expect((await call('/v1/businesses', { limit: 10, ...question })).status).toBe(status)
    expect(charged()).toEqual(before)
  })

  it('answers nobody without its key', async () => {
    const response = await fetch(`${outside.url}/thornwick/v1/trades?q=a`)
    expect(response.status).toBe(401)
  })
})

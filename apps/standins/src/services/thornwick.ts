import { Hono } from 'hono'
import { z } from 'zod'
import type { Directory } from '../directory'
import { createLedger, keyOfCall, needsKey, type Service, type StandInOptions, sleep } from '../http'
import { PLACES, plain, type World } from '../world'
import { type Listed, listedIn, TRADES } from './thornwickRecords'

const PRICE = 60_000
const PAGE = 50
const TOLD = 20

const Question = z.object({
  trade: z.string(),
  place: z.string(),
  known: z
    .object({ records: z.array(z.string()).default([]), numbers: z.array(z.string()).default([]) })
    .default({ records: [], numbers: [] }),
})
const PageQuestion = Question.extend({ after: z.string().default(''), limit: z.number().int().min(1).max(PAGE) })

interface Named {
  readonly code: string
  readonly name: string
  /** What else it is found by. */
  readonly also?: readonly string[]
}

/** Thornwick, the directory of businesses: by trade and place, in pages, a price for each record it tells. */
export function thornwick(world: World, _: Directory, key: string, { pace, faults, book }: StandInOptions): Service {
  const app = new Hono()
  const ledger = createLedger({ faults, book })
  const listed = listedIn(world)
  const places = placesOf(listed)
  const answered = new Map<string, unknown>()
  app.use('*', needsKey(key))

  app.get('/v1/trades', (c) => c.json({ trades: matching(TRADES, c.req.query('q') ?? '') }))
  app.get('/v1/places', (c) => c.json({ places: matching(places, c.req.query('q') ?? '') }))

  const chosen = ({ trade, place }: z.output<typeof Question>): readonly Listed[] | null =>
    TRADES.some(({ code }) => code === trade) && places.some(({ code }) => code === place)
      ? listed.filter((one) => one.trade === trade && (place === codeOf(one) || place === one.address.country))
      : null

  app.post('/v1/count', async (c) => {
    const question = Question.parse(await c.req.json())
    const all = chosen(question)
    if (all === null) return c.json({ error: 'no such trade or place' }, 422)
    const isKnown = knownBy(question)
    await sleep(60 / pace.speed)
    return c.json({ count: all.length, known: all.filter(isKnown).length, price: ledger.priceNow(PRICE) })
  })

  app.post('/v1/businesses', async (c) => {
    const question = PageQuestion.parse(await c.req.json())
    const all = chosen(question)
    if (all === null) return c.json({ error: 'no such trade or place' }, 422)
    await sleep(250 / pace.speed)
    const call = keyOfCall(c, crypto.randomUUID())
    const before = answered.get(call)
    if (before) return c.json(before as object)
    const page = pageOf(all, question)
    for (const { id } of page.told) ledger.charge(`${call}|${id}`, PRICE)
    const answer = {
      businesses: page.told.map(({ numberHash: _, ...one }) => one),
      omitted: page.omitted,
      price: ledger.priceNow(PRICE),
      next: page.next,
    }
    answered.set(call, answer)
    return c.json(answer)
  })
  return { app, ledger }
}

const knownBy = ({ known }: z.output<typeof Question>): ((one: Listed) => boolean) => {
  const records = new Set(known.records)
  const numbers = new Set(known.numbers)
  return (one) => records.has(one.id) || numbers.has(one.numberHash)
}

/** What follows a record, as far as a page goes; what is known is passed by. */
function pageOf(all: readonly Listed[], question: z.output<typeof PageQuestion>) {
  const isKnown = knownBy(question)
  const told: Listed[] = []
  let omitted = 0
  let last = ''
  for (const one of all) {
    if (one.id <= question.after) continue
    if (told.length === question.limit) return { told, omitted, next: last }
    last = one.id
    if (isKnown(one)) omitted++
    else told.push(one)
  }
  return { told, omitted, next: null }
}

const codeOf = ({ address }: Listed): string => `${address.country}/${address.town}`

function placesOf(listed: readonly Listed[]): readonly Named[] {
  const towns = [...new Set(listed.map(codeOf))].sort()
  const countries = PLACES.map(({ country, spellings }) => ({
    code: country,
    name: spellings[0] ?? country,
    also: spellings,
  }))
  const nameOf = new Map(countries.map(({ code, name }) => [code, name]))
  return [
    ...countries,
    ...towns.map((code) => {
      const [country = '', town = ''] = code.split('/')
      return { code, name: `${town}, ${nameOf.get(country) ?? country}` }
    }),
  ]
}

const matching = (all: readonly Named[], search: string): readonly Named[] =>
  all
    .filter(({ name, also = [] }) => [name, ...also].some((one) => plain(one).includes(plain(search))))
    .slice(0, TOLD)
    .map(({ code, name }) => ({ code, name }))

import { expect, it } from '@jest/globals'
import { harvest, linksOn, readPage, TAKEN_FROM } from '@upper-field/core/harvest'
import { createWeb } from '../src/web'
import { createWorld, DEMO_WORLD } from '../src/world'

const web = createWeb(createWorld(DEMO_WORLD.seed, DEMO_WORLD), { speed: 100 })
/** These never end, or lead round and round: only a reader with limits comes back from them. */
const LEFT_OUT = new Set(['long-road.example', 'heavy-trunk.example', 'almanac.example', 'closed-gate.example'])

async function pageOf(host: string, url: string): Promise<string | null> {
  const answer = await web.answer(new Request(url), host)
  if (!answer?.ok || !/html/.test(answer.headers.get('content-type') ?? '')) return null
  return answer.text()
}

/** What stands on the first page of a site and on those that say how it is reached. */
async function foundAt(host: string): Promise<Map<string, string>> {
  const found = new Map<string, string>()
  const home = `http://${host}/`
  const first = await pageOf(host, home)
  const further = first === null ? [] : linksOn(readPage(first), home).filter(({ isContact }) => isContact)
  for (const url of [home, ...further.map((link) => link.url)]) {
    const page = url === home ? first : await pageOf(host, url)
    if (page === null) continue
    for (const one of harvest(page, { url }).findings) if (one.confidence >= TAKEN_FROM) found.set(one.value, one.kind)
  }
  return found
}

it('shows the lines of its businesses to whoever reads it, and none that is no line', async () => {
  let [right, wrong, missed, addresses, allAddresses] = [0, 0, 0, 0, 0]
  for (const host of web.hosts.filter((one) => !LEFT_OUT.has(one))) {
    const found = await foundAt(host)
    const truth = web.truth.get(host) ?? []
    const numbers = [...found].flatMap(([value, kind]) => (kind === 'number' ? [value] : []))
    right += numbers.filter((one) => truth.includes(one)).length
    wrong += numbers.filter((one) => !truth.includes(one)).length
    missed += truth.filter((one) => !found.has(one)).length
    const mails = web.emails.get(host) ?? []
    allAddresses += mails.length
    addresses += mails.filter((one) => found.has(one)).length
  }
  expect(right).toBeGreaterThan(50)
  expect(right / (right + missed)).toBeGreaterThanOrEqual(0.97)
  expect(right / (right + wrong)).toBeGreaterThanOrEqual(0.98)
  expect(addresses / allAddresses).toBeGreaterThanOrEqual(0.97)
})

it('has about 120 pages, and tells what was looked at', async () => {
  const pages = web.hosts.length * 2
  expect(pages).toBeGreaterThan(110)
  const before = web.visits.length
  await web.answer(new Request('http://closed-gate.example/robots.txt'), 'closed-gate.example')
  expect(web.visits.slice(before)).toMatchObject([{ host: 'closed-gate.example', path: '/robots.txt', open: 1 }])
  expect(web.answer(new Request('http://nobody.example/'), 'nobody.example')).toBeNull()
})

import { afterAll, beforeAll, expect, it } from '@jest/globals'
import { createRandom } from '@upper-field/standins/world'
import { DIMENSIONS } from '../../src/projection/cubeDimensions'
import { startTestServer, type TestServer } from './harness'
import { type Act, actsOnList, isDone } from './randomActs'
import { wrongWords } from './wrongWords'

let server: TestServer
beforeAll(async () => {
  server = await startTestServer()
})
afterAll(() => server.stop())

/** Counts as they are kept, and as the contacts themselves say. */
async function bothCounts(listId: string) {
  const groups = (from: string, n: string) =>
    server.sql<{ of: string; n: number }>(
      `select row_to_json(g)::text as of, n from (select ${DIMENSIONS}, sum(${n})::int as n
       from ${from} where list_id = $1 group by ${DIMENSIONS} having sum(${n}) <> 0) g order by 1`,
      [listId],
    )
  const repairs = (from: string) => server.sql<{ code: string; n: number }>(from, [listId])
  const shown = `contacts c join batches b on b.id = c.batch_id and b.state = 'ready'`
  return {
    kept: await groups('contact_cube', 'contacts'),
    found: await groups(
      `(select c.*, joined_into is not null as is_joined, joined > 0 as has_joined, 1 as one, c.id in (
          select span::bigint * 8192 + place from sent_contacts cross join generate_series(0, 8191) place
          where get_bit(bits, place) = 1) as is_sent from contacts c
        where exists (select 1 from batches b where b.id = c.batch_id and b.state = 'ready')) contacts`,
      'one',
    ),
    keptRepairs: await repairs(
      `select batch_id, code, sum(contacts)::int as n from tidy_counts where list_id = $1 group by 1, 2 having sum(contacts) <> 0 order by 1, 2`,
    ),
    foundRepairs: await repairs(
      `select batch_id, code, count(*)::int as n from (
         select c.batch_id, unnest(c.changes) as code from ${shown} where c.list_id = $1
         union all select c.batch_id, 'hand' from ${shown} where c.list_id = $1 and c.hand > 0) r group by 1, 2 order by 1, 2`,
    ),
  }
}

it('are the same when they follow each act as when the whole list is counted', async () => {
  const { listId, few: acts } = await actsOnList(server, createRandom('acts'))
  const names = Object.keys(acts)
  const done = new Map<string, number>()
  for (let i = 0; i < 80; i++) {
    const name = names[i % names.length] as string
    const worked = await isDone(acts[name] as Act)
    if (worked) done.set(name, (done.get(name) ?? 0) + 1)
    const { kept, found, keptRepairs, foundRepairs } = await bothCounts(listId)
    expect([name, kept]).toEqual([name, found])
    expect([name, keptRepairs]).toEqual([name, foundRepairs])
    expect([name, await wrongWords(server, listId)]).toEqual([name, []])
  }
  const negative = async () =>
    (
      await server.sql<{ n: number }>(
        'select count(*)::int as n from contact_cube where list_id = $1 and contacts < 0',
        [listId],
      )
    )[0]?.n
  // They did follow the acts, one by one.
  expect(await negative()).toBeGreaterThan(10)
  // After so many that they are summed up, there is one line for each group again.
  await server.sql('update lists set unsummed = 5000 where id = $1', [listId])
  await acts.edit?.()
  expect(await negative()).toBe(0)
  const summed = await bothCounts(listId)
  expect([summed.kept, summed.keptRepairs]).toEqual([summed.found, summed.foundRepairs])
  // Every kind of act was done, most of them often.
  for (const name of names) expect([name, (done.get(name) ?? 0) > 2]).toEqual([name, true])
})

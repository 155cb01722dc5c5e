import { afterAll, beforeAll, expect, it } from '@jest/globals'
import { createRandom, type Random } from '@upper-field/standins/world'
import { untilEnded } from '../../../../scripts/bringIn'
import { DIMENSIONS } from '../../src/projection/cubeDimensions'
import { bringText, newList, startTestServer, type TestServer } from './harness'

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

/** Contacts of a list whose words in its index are not what they hold. */
const wrongWords = (listId: string) =>
  server.sql(
    `select c.id, c.search, w.words from contacts c join batches b on b.id = c.batch_id and b.is_indexed
     left join words."${listId}" w on w.contact_id = c.id where c.list_id = $1 and w.words is distinct from c.search`,
    [listId],
  )

const GIVEN = ['Maren', 'Tom', 'Priya', 'Juno', 'M.', 'Dr Ansel', '']
const FAMILY = ['Oldershaw', 'Kestle', 'Hallowell', 'OLDERSHAW', 'Vaubert']
const COMPANIES = ['Heron Camping', 'heron camping ltd', 'Larch Café', '']

/** Rows of few people written in many ways, so that acts on them touch others too. */
function rowsOf(random: Random, rows: number): string {
  const lines = Array.from({ length: rows }, () =>
    [
      `${random.pick(GIVEN)} ${random.pick(FAMILY)}`.trim(),
      random.pick(COMPANIES),
      random.pick(['07911 2044', '+44 7911 2044', '01665 5550']) + String(10 + random.below(25)),
      random.pick(['', `p${random.below(20)}@causeway.example`, `P${random.below(20)} @causeway.example`]),
      random.pick(['GB', 'United Kingdom', '']),
    ].join(','),
  )
  return `name,company,phone,mail,country\n${lines.join('\n')}\n`
}

it('are the same when they follow each act as when the whole list is counted', async () => {
  const random = createRandom('acts')
  const listId = await newList(server.api)
  await bringText(server.api, listId, rowsOf(random, 120), { defaultCountry: 'GB' })
  await bringText(server.api, listId, rowsOf(random, 80), { defaultCountry: 'GB' })
  const { call } = server.api
  const optOuts = await call('makeSuppressionList', { body: { name: 'Opt-outs', kind: 'opt-outs' } })
  await call('keepLaneRules', {
    params: { listId },
    body: {
      rules: [
        { lane: 'fresh', name: 'Fresh', use: 'texts', filter: 'not sent:people' },
        { lane: 'text', name: 'Text', use: 'texts', filter: 'line:mobile' },
      ],
    },
  })
  const someone = async () => {
    const rows = await server.sql<{ id: string }>('select id from contacts where list_id = $1 order by id', [listId])
    return Number(random.pick(rows).id)
  }
  const edits: string[] = []
  const acts: Readonly<Record<string, () => Promise<unknown>>> = {
    edit: async () => {
      const column = random.pick(['number', 'full-name', 'email', 'company', 'city'])
      const value = random.pick(['07911 204411', '', 'Tom Kestle', 'x@postbox.example', 'nothing at all'])
      const act = await call('makeEdits', {
        params: { listId },
        body: { edits: [{ contactId: await someone(), column, value }] },
      })
      edits.push(act.id)
    },
    undo: async () => {
      const id = edits.pop()
      if (id) await untilEnded(server.api, listId, (await call('takeActBack', { params: { actId: id } })).id)
    },
    lane: async () =>
      call('placeByHand', {
        params: { contactId: await someone() },
        body: { lane: random.pick([null, 'parked', 'text', 'call']) },
      }),
    suppress: async () =>
      call('suppressContact', {
        params: { contactId: await someone() },
        body: { suppressionListId: optOuts.id, reason: 'asked' },
      }),
    'let go': async () => {
      const { entries } = await call('readSuppressionEntries', { params: { suppressionListId: optOuts.id } })
      const [entry] = entries
      if (entry) await call('dropSuppressionEntry', { params: { entryId: entry.id } })
    },
    send: async () => {
      const filter = random.pick(['Kestle', 'Maren', 'lane:fresh Hallowell', 'company:heron'])
      const { jobId } = await call('makeEdition', {
        params: { listId },
        body: { destination: 'people', form: 'people', filter },
      })
      await untilEnded(server.api, listId, jobId)
      // Lanes follow: whoever is fresh was sent nothing.
      expect(
        await server.sql(
          `select 1 from contacts c join edition_members m on m.span = c.id / 8192 and get_bit(m.bits, (c.id % 8192)::int) = 1
           where c.list_id = $1 and c.lane = 'fresh' and c.lane_by_hand = ''`,
          [listId],
        ),
      ).toEqual([])
    },
    split: async () => {
      const open = await server.sql<{ id: string }>(
        'select id from joins where list_id = $1 and undone_at is null order by id limit 5',
        [listId],
      )
      const one = open[0]
      if (one) await call('takeApart', { params: { joinId: Number(one.id) } })
    },
    add: async () =>
      call('addContacts', {
        params: { listId },
        body: {
          contacts: [
            {
              id: `a${random.below(1_000_000)}`,
              fields: { 'full-name': 'Tom Kestle', number: `079112044${10 + random.below(25)}` },
            },
          ],
          country: 'GB',
        },
      }),
  }
  const names = Object.keys(acts)
  const done = new Map<string, number>()
  for (let i = 0; i < 80; i++) {
    const name = names[i % names.length] as string
    const worked = await acts[name]?.().then(
      () => true,
      (error: { code?: string }) => {
        // Nothing to be done for this one: already so, or gone.
        if (error.code === undefined) throw error
        return false
      },
    )
    if (worked) done.set(name, (done.get(name) ?? 0) + 1)
    const { kept, found, keptRepairs, foundRepairs } = await bothCounts(listId)
    expect([name, kept]).toEqual([name, found])
    expect([name, keptRepairs]).toEqual([name, foundRepairs])
    expect([name, await wrongWords(listId)]).toEqual([name, []])
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

import { afterAll, beforeAll, expect, it } from '@jest/globals'
import { fairBadges } from '@upper-field/demo'
import type { StandIns } from '@upper-field/standins'
import { createRandom, createWorld } from '@upper-field/standins/world'
import { sql } from 'drizzle-orm'
import { isShown } from '../../src/contacts/shown'
import { type Db, transaction } from '../../src/db/database'
import { withListLock } from '../../src/lists/listLock'
import { joinExactDuplicates } from '../../src/pair/joinExactDuplicates'
import { countContacts } from '../../src/projection/cube'
import { reproject } from '../../src/projection/reproject'
import { connectStandIns, startTestServer, type TestServer } from './harness'
import { type Act, actsOnList, isDone } from './randomActs'
import { wrongWords } from './wrongWords'

let server: TestServer
let standIns: StandIns
beforeAll(async () => {
  server = await startTestServer()
  standIns = await connectStandIns(server, { people: 60, speed: 4000 })
})
afterAll(async () => {
  await server.stop()
  await standIns.stop()
})

/** Where a contact belongs tells nothing while it is joined to another: it is decided when it stands for itself again. */
const OF_STANDING = "'{is_shared,lane,lane_reason,call_from,suppressed_for,can_text,can_call}'::text[]"

type Picture = ReadonlyMap<string, Readonly<Record<string, unknown>>>

/** Everything that is projected of the contacts that a list shows, by their ids; and how many of them each repair touched. */
async function pictureOf(tx: Db, listId: string): Promise<Picture> {
  const { rows } = await tx.execute<{ id: string; of: Record<string, unknown> }>(sql`
    select c.id, case when c.joined_into is null and ${isShown('c')} then to_jsonb(c) else to_jsonb(c) - ${sql.raw(OF_STANDING)} end || jsonb_build_object(
      'numbers', (select jsonb_agg(to_jsonb(n) order by position) from contact_numbers n where n.contact_id = c.id),
      'emails', (select jsonb_agg(to_jsonb(e) order by position) from contact_emails e where e.contact_id = c.id)) as of
    from contacts c where c.list_id = ${listId} order by c.id`)
  const { rows: repairs } = await tx.execute<{ code: string; n: number }>(sql`
    select code, sum(contacts) as n from tidy_counts where list_id = ${listId} group by code having sum(contacts) <> 0`)
  const counted = Object.fromEntries(repairs.map(({ code, n }) => [code, n]))
  return new Map([...rows.map(({ id, of }) => [id, of] as const), ['repairs', counted] as const])
}

/** What two pictures show otherwise of the same contact. */
const differences = (is: Picture, anew: Picture) =>
  [...is].flatMap(([id, was]) =>
    [...new Set([...Object.keys(was), ...Object.keys(anew.get(id) ?? {})])].flatMap((name) => {
      const [value, now] = [was[name], anew.get(id)?.[name]]
      return JSON.stringify(value) === JSON.stringify(now) ? [] : [{ id, name, is: value, anew: now }]
    }),
  )

/** Contacts that stand for themselves and do not count as sent though they or somebody joined to them were, or the reverse. */
const wronglySent = (listId: string) =>
  server.sql(
    `select c.id from contacts c where c.list_id = $1 and c.joined_into is null and
       exists (select 1 from sent_contacts s where s.span = c.id / 8192 and get_bit(s.bits, (c.id % 8192)::int) = 1)
       <> exists (select 1 from contacts w join edition_members m on m.span = w.id / 8192 and get_bit(m.bits, (w.id % 8192)::int) = 1
         join editions e on e.id = m.edition_id and e.state = 'ready' where w.id = c.id or w.joined_into = c.id)`,
    [listId],
  )

class TakenBack extends Error {}

/**
 * A list as it is, and as it is when it is projected anew from its rows, with how many would then be joined besides;
 * nothing is kept of that.
 */
async function asItIsAndAnew(
  listId: string,
): Promise<{ readonly is: Picture; readonly anew: Picture; readonly joinedBesides: number }> {
  const pictures: Picture[] = []
  let joinedBesides = 0
  await withListLock(server.services, listId, { work: 'tidy', counts: 'whole' }, async (tx, client) => {
    pictures.push(await pictureOf(tx, listId))
    const { rows } = await tx.execute<{ id: string }>(
      sql`select id from contacts where list_id = ${listId} order by id`,
    )
    const ids = rows.map(({ id }) => Number(id))
    await reproject(tx, client, { contacts: ids, because: 'changed' })
    await countContacts(tx, listId)
    pictures.push(await pictureOf(tx, listId))
    joinedBesides = await joinExactDuplicates(tx, client, { listId, added: { ids } })
    throw new TakenBack()
  }).catch((error: unknown) => {
    if (!(error instanceof TakenBack)) throw error
  })
  const [is, anew] = pictures as [Picture, Picture]
  return { is, anew, joinedBesides }
}

/** Joins by a number that no longer two of those who are one person hold of themselves. */
const groundlessJoins = (listId: string) =>
  server.sql(
    `with held as (
       select contact_id, e164 as key from contact_numbers where origin <> 'join'
       union select contact_id, e164 from fills where undone_at is null)
     select j.key, j.member_id, j.survivor_id from joins j join contacts m on m.id = j.member_id
     join batches b on b.id = m.batch_id and b.state = 'ready'
     where j.list_id = $1 and j.undone_at is null and j.suspended_by is null and j.key_kind = 'number'
       and 2 > (select count(distinct h.contact_id) from held h join contacts c on c.id = h.contact_id
         where h.key = j.key and coalesce(c.joined_into, c.id) = m.joined_into)`,
    [listId],
  )

/** Contacts that are not joined to whom their joins lead to. */
const ledAstray = (listId: string) =>
  server.sql(
    `with recursive up as (
       select member_id as id, survivor_id as root from joins where list_id = $1 and undone_at is null and suspended_by is null
       union all
       select up.id, j.survivor_id from up join joins j on j.member_id = up.root and j.undone_at is null and j.suspended_by is null),
     roots as (
       select id, root from up where not exists (
         select 1 from joins j where j.member_id = up.root and j.undone_at is null and j.suspended_by is null))
     select c.id, c.joined_into, roots.root from contacts c left join roots on roots.id = c.id
     where c.list_id = $1 and c.joined_into is distinct from roots.root`,
    [listId],
  )

const scansOf = (seed: string, rows: number): string =>
  new TextDecoder().decode(fairBadges(createWorld('tests', { people: 60 }), { rows, seed: `${seed}/${rows}` }).bytes)

const ACTS = 40

it.each(['x8', 'w1'])(
  'contacts are the same when they are projected anew after whatever was done (%s)',
  async (seed) => {
    const random = createRandom(seed)
    // What is learnt of a number, and who says no, touches the lists of others.
    const one = await actsOnList(server, random, [scansOf(seed, 90), scansOf(seed, 50)])
    const other = await actsOnList(server, random, [scansOf(seed, 60)])
    const done: string[] = []
    for (let i = 0; i < ACTS; i++) {
      const { listId, few, whole } = random.chance(0.8) ? one : other
      const [name, act] = random.pick(Object.entries({ ...few, ...whole })) as [string, Act]
      if (await isDone(act)) done.push(listId === one.listId ? name : `${name} beside`)
      for (const looked of [one.listId, other.listId]) {
        const { is, anew, joinedBesides } = await asItIsAndAnew(looked)
        const otherwise = differences(is, anew)
        expect({ last: name, otherwise, done }).toEqual({ last: name, otherwise: [], done })
        // A name that survives by another rule may agree with others: nobody is joined for that alone.
        if (!done.some((one) => one.startsWith('survivorship')))
          expect({ last: name, joinedBesides, done }).toEqual({ last: name, joinedBesides: 0, done })
        expect({ done, groundless: await groundlessJoins(looked) }).toEqual({ done, groundless: [] })
        expect({ done, astray: await ledAstray(looked) }).toEqual({ done, astray: [] })
        expect({ done, words: await wrongWords(server, looked) }).toEqual({ done, words: [] })
        expect({ done, sent: await wronglySent(looked) }).toEqual({ done, sent: [] })
      }
    }
  },
)

it('contacts are what they were when what was done is taken back', async () => {
  const random = createRandom('back')
  const acts = await actsOnList(server, random, [scansOf('back', 80), scansOf('back', 50)])
  for (const act of [acts.few.pair, acts.whole.decide, acts.few.suppress, acts.whole.check]) if (act) await isDone(act)
  const look = () => transaction(server.services.pool, (tx) => pictureOf(tx, acts.listId))
  const undone = new Map<string, number>()
  for (let round = 0; round < 3; round++)
    for (const [name, act] of Object.entries(acts.back)) {
      const before = await look()
      const takeBack = await act()
      if (takeBack === null) continue
      await takeBack()
      const otherwise = differences(before, await look())
      expect({ name, otherwise }).toEqual({ name, otherwise: [] })
      undone.set(name, (undone.get(name) ?? 0) + 1)
    }
  expect(Object.keys(acts.back).filter((name) => !undone.has(name))).toEqual([])
})

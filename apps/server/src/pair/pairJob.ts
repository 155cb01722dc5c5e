import type { Thresholds } from '@upper-field/contract'
import {
  DEFAULT_THRESHOLDS,
  type Paired,
  type PairInput,
  pairContacts,
  pairInputOf,
  type Survivorship,
} from '@upper-field/core/pair'
import type { LineType } from '@upper-field/core/phone'
import { takeLegalForm } from '@upper-field/core/tidy'
import { eq, sql } from 'drizzle-orm'
import type { PoolClient } from 'pg'
import { copyInto } from '../db/copy'
import { type Db, transaction } from '../db/database'
import { lists, pairStates } from '../db/schema'
import { type JobHandler, JobProblem, type StepOutcome } from '../jobs/runner'
import { saveJob } from '../jobs/store'
import { lockList } from '../lists/lock'
import { countContacts } from '../projection/cube'
import { refreshSurvivors } from '../projection/refresh'
import type { Services } from '../services'
import { keptApart, pairOf } from './keptApart'
import { pointToSurvivors } from './pointToSurvivors'
import { refreshWithSharers } from './refreshWithSharers'

/** Pairing holds all contacts of a list in memory: more would not fit beside the other work of this process. */
export const MOST_CONTACTS = 60_000
/** The likeliest pairs are kept for a person; nobody decides more. */
const MOST_PAIRS = 20_000

/** Looks for contacts that are one person, in one transaction: what is sure is joined, what is not is left to a person. */
export const pairJob: JobHandler = {
  async step(services, job): Promise<StepOutcome> {
    const { thresholds = DEFAULT_THRESHOLDS, survivorship } = job.payload as {
      thresholds?: Thresholds
      survivorship?: Survivorship
    }
    if (survivorship) return surviveAnew(services, job, survivorship)
    await transaction(services.pool, async (tx, client) => {
      await lockList(tx, job.listId)
      const contacts = await standingContacts(tx, job.listId)
      const apart = await keptApart(tx, job.listId)
      const ids = contacts.map(({ id }) => id)
      const idAt = (at: number): number => ids[at] ?? 0
      const paired = pairContacts(
        contacts.map(({ input }) => input),
        { thresholds, isKeptApart: (a, b) => apart.has(pairOf(idAt(a), idAt(b))) },
      )
      const joined = await storeGroups(tx, client, job.listId, paired, idAt)
      const toDecide = await storePairs(tx, client, job.listId, paired, idAt)
      const state = { listId: job.listId, contacts: contacts.length, thresholds, bins: [...paired.bins] }
      await tx
        .insert(pairStates)
        .values(state)
        .onConflictDoUpdate({ target: pairStates.listId, set: { ...state, ranAt: new Date(services.now()) } })
      await countContacts(tx, job.listId)
      await saveJob(tx, job.id, { phase: 'done', done: contacts.length, result: { joined, toDecide } })
    })
    return { next: 'done' }
  },
}

/** Puts every contact that is made of several rows together anew, by other rules. */
async function surviveAnew(
  services: Services,
  job: { readonly id: string; readonly listId: string },
  survivorship: Survivorship,
): Promise<StepOutcome> {
  await transaction(services.pool, async (tx, client) => {
    await lockList(tx, job.listId)
    await tx.update(lists).set({ survivorship }).where(eq(lists.id, job.listId))
    const { rows } = await tx.execute<{ id: string }>(
      sql`select id from contacts where list_id = ${job.listId} and joined > 0 order by id`,
    )
    await refreshSurvivors(
      tx,
      client,
      rows.map(({ id }) => Number(id)),
    )
    await countContacts(tx, job.listId)
    await saveJob(tx, job.id, { phase: 'done', done: rows.length, result: { contacts: rows.length } })
  })
  return { next: 'done' }
}

interface Standing {
  readonly id: number
  readonly input: PairInput
}

/** Contacts of a list that stand for themselves, with the numbers and e-mails of all they were made from. */
async function standingContacts(tx: Db, listId: string): Promise<Standing[]> {
  const { rows } = await tx.execute<Record<string, string> & { numbers: StoredNumber[]; emails: StoredEmail[] }>(sql`
    select c.id, c.full_name, c.given_name, c.family_name, c.company, c.domain, c.profile, c.city, c.postal_code, c.country,
      coalesce((select json_agg(json_build_object('e164', n.e164, 'valid', n.is_valid, 'lineType', n.line_type) order by n.position)
        from contact_numbers n where n.contact_id = c.id), '[]') as numbers,
      coalesce((select json_agg(json_build_object('address', e.address, 'kind', e.kind) order by e.position)
        from contact_emails e where e.contact_id = c.id), '[]') as emails
    from contacts c join batches b on b.id = c.batch_id and b.state = 'ready'
    where c.list_id = ${listId} and c.joined_into is null order by c.id limit ${MOST_CONTACTS + 1}`)
  if (rows.length > MOST_CONTACTS) throw new JobProblem('too-many-to-pair')
  return rows.map((row) => ({
    id: Number(row.id),
    input: pairInputOf({
      values: {
        fullName: row.full_name ?? '',
        givenName: row.given_name ?? '',
        familyName: row.family_name ?? '',
        company: takeLegalForm(row.company ?? '').name,
        domain: row.domain ?? '',
        profile: row.profile ?? '',
        city: row.city ?? '',
        postalCode: row.postal_code ?? '',
        country: row.country ?? '',
      },
      numbers: row.numbers,
      emails: row.emails,
    }),
  }))
}

interface StoredNumber {
  readonly e164: string
  readonly valid: boolean
  readonly lineType: LineType
}
interface StoredEmail {
  readonly address: string
  readonly kind: string
}

/** @returns how many contacts were joined to another */
async function storeGroups(
  tx: Db,
  client: PoolClient,
  listId: string,
  { groups }: Paired,
  idAt: (at: number) => number,
): Promise<number> {
  const lines = groups.flatMap(({ members, score }) => {
    const [survivor = 0, ...others] = members.map(idAt)
    return others.map((member) => [listId, survivor, member, 'likeness', score.toFixed(1)] as const)
  })
  await copyInto(client, 'joins', ['list_id', 'survivor_id', 'member_id', 'key_kind', 'key'], lines)
  const survivors = groups.map(({ members }) => idAt(members[0] ?? 0))
  await pointToSurvivors(tx, survivors)
  const touched = groups.flatMap(({ members }) => members.map(idAt))
  await refreshWithSharers(tx, client, touched)
  return lines.length
}

/** Writes down what a person has to decide, in place of what was left from the run before. @returns how many pairs */
async function storePairs(
  tx: Db,
  client: PoolClient,
  listId: string,
  paired: Paired,
  idAt: (at: number) => number,
): Promise<number> {
  await tx.execute(sql`delete from pairs where list_id = ${listId} and decision_id is null`)
  const { rows } = await tx.execute<{ a: string; b: string }>(
    sql`select a_id as a, b_id as b from pairs where list_id = ${listId}`,
  )
  const decided = new Set(rows.map((row) => pairOf(Number(row.a), Number(row.b))))
  const joined = new Map(
    paired.groups.flatMap(({ members }) => members.map((member) => [member, members[0] ?? member])),
  )
  // A contact that was joined is decided about through the one it was joined to.
  const asked = new Set<string>()
  const lines = paired.toDecide.flatMap(({ a, b, score, key }) => {
    const [one, other] = [idAt(joined.get(a) ?? a), idAt(joined.get(b) ?? b)].sort((x, y) => x - y) as [number, number]
    const pair = pairOf(one, other)
    if (one === other || decided.has(pair) || asked.has(pair)) return []
    asked.add(pair)
    const evidence = paired.explain(a, b).map(({ field, level, bits }) => ({ field, level, bits: round(bits) }))
    const pattern = [key, ...evidence.map(({ field, level }) => `${field}:${level}`)].join(' ')
    return [[listId, one, other, round(score), key, JSON.stringify(evidence), round(paired.weights.against), pattern]]
  })
  const kept = lines.slice(0, MOST_PAIRS)
  await copyInto(client, 'pairs', ['list_id', 'a_id', 'b_id', 'score', 'key', 'evidence', 'against', 'pattern'], kept)
  return kept.length
}

const round = (bits: number): number => Math.round(bits * 100) / 100

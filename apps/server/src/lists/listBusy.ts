import { sql } from 'drizzle-orm'
import type { Db } from '../db/database'
import { LOCKS } from '../db/locks'
import { num, orNull, readRow, text, when } from '../db/readRows'
import { Problem } from '../http/problem'

/** Kinds of work that have a list for themselves while they change it. */
export type ListWork =
  | 'bring-in'
  | 'take-back'
  | 'bring-back'
  | 'let-in'
  | 'tidy'
  | 'edit'
  | 'pair'
  | 'decide'
  | 'mark'
  | 'forget'
  | 'check'
  | 'fill'
  | 'split'
  | 'send'
  | 'index'

/** A list is being worked on by somebody else, and was not to be had in time. */
export class ListBusy extends Problem {
  constructor(detail: string) {
    super(409, 'list-busy', detail)
  }
}

/** Who has a list: the work, and who started it where it is a job. */
export interface Holder {
  readonly work: string
  readonly startedBy: string | null
  readonly since: Date
  /** From 0 to 1, where it can be told. */
  readonly share: number | null
}

const WORDS: Record<ListWork, string> = {
  'bring-in': 'a batch is being joined with this list',
  'take-back': 'a batch of this list is being taken back',
  'bring-back': 'a batch of this list is being brought back',
  'let-in': 'rows are being let in',
  tidy: 'this list is being tidied',
  edit: 'values of this list are being changed',
  pair: 'this list is being paired',
  decide: 'a pair of this list is being decided',
  mark: 'suppressed contacts of this list are being marked',
  forget: 'a person of this list is being erased',
  check: 'answers about numbers of this list are being stored',
  fill: 'found values of this list are being stored',
  split: 'the lanes of this list are being decided',
  send: 'a file of this list is being finished',
  index: 'the search of this list is being made ready',
}

/** The sentence for whoever has to wait. */
export function sayWho(holder: Holder | null): string {
  if (holder === null) return 'This list is being worked on. Nothing was changed: try again in a moment.'
  const words = WORDS[holder.work as ListWork] ?? 'this list is being worked on'
  const by = holder.startedBy ? `, started by ${holder.startedBy}` : ''
  const share = holder.share === null ? '' : `, ${Math.floor(holder.share * 100)} % done`
  const since = `${holder.since.toISOString().slice(11, 16)} UTC`
  return `Since ${since} ${words}${by}${share}. Nothing was changed: try again when that has ended, or stop it.`
}

/** Who has one of these lists for itself now, in whatever process; null where nobody has. */
export async function whoHolds(db: Db, listIds: readonly string[]): Promise<Holder | null> {
  const holding = await readRow(db, HOLDING)`
    with wanted as (select hashtextextended(id, ${LOCKS.list}) as key from unnest(${sql.param([...listIds])}::text[]) as id),
    held as (
      select a.application_name as name, a.xact_start as since from pg_locks l
      join pg_stat_activity a on a.pid = l.pid
      join wanted on wanted.key = (l.classid::bigint << 32) | l.objid::bigint
      where l.locktype = 'advisory' and l.objsubid = 1 and l.granted
        and l.database = (select oid from pg_database where datname = current_database()))
    select split_part(held.name, ' ', 2) as work, held.since, j.started_by,
      coalesce(j.phase_share, least(1, j.done::real / nullif(j.total, 0))) as share
    from held left join jobs j on j.id::text = split_part(held.name, ' ', 3) limit 1`
  if (!holding) return null
  return { ...holding, since: holding.since ?? new Date(0) }
}

const HOLDING = { work: text, startedBy: orNull(text), since: orNull(when), share: orNull(num) }

import { readPhoneCell } from '@upper-field/core/phone'
import type { AudienceMember } from '@upper-field/core/send'
import type { Db } from '../db/database'
import { oneOf, readRows, text } from '../db/readRows'

export interface EntriesPage {
  readonly members: readonly AudienceMember[]
  /** The hash that was looked at last; null where there is nothing left. */
  readonly last: string | null
}

const PAGE = 5000

/**
 * The next entries of a suppression list as members of an audience that excludes them: numbers and addresses that are
 * known by more than their hash.
 */
export async function pageOfEntries(db: Db, suppressionListId: string, after: string): Promise<EntriesPage> {
  const entries = await readRows(db, { kind: oneOf(['number', 'email']), hash: text, key: text })`
    select distinct on (hash) kind, hash, key from suppression_entries
    where suppression_list_id = ${suppressionListId} and hash > ${after} and key is not null
      and kind in ('number', 'email') and (expires_at is null or expires_at > now())
    order by hash limit ${PAGE}`
  return { members: entries.map(memberOf), last: entries.at(-1)?.hash ?? null }
}

function memberOf({ kind, key }: { readonly kind: 'number' | 'email'; readonly key: string }): AudienceMember {
  const numberCountry = kind === 'number' ? (readPhoneCell(key).numbers[0]?.country ?? null) : null
  return { country: '', numberCountry, values: kind === 'number' ? { number: [key] } : { email: [key] } }
}

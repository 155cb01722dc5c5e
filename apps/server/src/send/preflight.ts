import type { Preflight } from '@upper-field/contract'
import { BRASSBELL, prepareMember } from '@upper-field/core/send'
import type { Db } from '../db/database'
import { pageOfMembers } from './members'

/** What the destination would refuse, and what is mended on the way, counted over the chosen contacts. */
export async function runPreflight(db: Db, listId: string, filter: string): Promise<Preflight> {
  const counts = {
    chosen: 0,
    ready: 0,
    noCountry: 0,
    noIdentifier: 0,
    countryFromNumber: 0,
    codeMended: 0,
    emptyNumbers: 0,
    withEmail: 0,
    withNumber: 0,
  }
  let after = 0
  for (;;) {
    const page = await pageOfMembers(db, { listId, filter, isForPeople: false }, after)
    for (const member of page.members) {
      counts.chosen++
      const prepared = prepareMember(member, BRASSBELL, { hash: null })
      if (prepared.status === 'left-out') {
        counts[prepared.reason === 'no-country' ? 'noCountry' : 'noIdentifier']++
        continue
      }
      counts.ready++
      if (prepared.mends.includes('country-from-number')) counts.countryFromNumber++
      if (member.emails.length > 0) counts.withEmail++
      if (member.numbers.length > 0) counts.withNumber++
      else counts.emptyNumbers++
      if (
        member.numbers.length > 0 &&
        member.record.raw_number !== '' &&
        !/^\W*(?:\+|00)/.test(member.record.raw_number)
      )
        counts.codeMended++
    }
    if (page.last === null) return { destination: BRASSBELL.id, ...counts, sizeFloor: BRASSBELL.sizeFloor }
    after = page.last
  }
}

import type { LookedUp } from '@upper-field/contract'
import { describeLine, needsCheck, needsVerifying } from '@upper-field/core/check'
import { numberFacts, type ReadNumber, readPhoneCell, timeZonesOf } from '@upper-field/core/phone'
import { isClosed, joinScopes } from '@upper-field/core/split'
import { type ReadEmail, readEmails } from '@upper-field/core/tidy'
import { sql } from 'drizzle-orm'
import { isShown } from '../contacts/shown'
import { num, readRows, text } from '../db/readRows'
import { factsOfAddresses, factsOfNumbers } from '../projection/facts'
import type { Services } from '../services'
import { suppressionsOf } from '../suppression/matches'
import { callStateOf } from './callPlaces'
import { type FactTerms, factTerms } from './openFacts'
import { readCheckSettings } from './settings'
import { ADDRESSES, LINES, type Subject } from './subjects'

/** Who is named of all that hold something. */
const NAMED = 8

/**
 * Reads one pasted text: what each number and address in it is, what is known of it, who holds it, whether it is
 * suppressed, and what asking would cost. Nobody is asked.
 * @param country for numbers without their country; null where none is given
 */
export async function lookUp(
  services: Services,
  { text, country }: { readonly text: string; readonly country: string | null },
): Promise<LookedUp> {
  const reading = readPhoneCell(text, { country })
  const emails = readEmails(text)
  const [numbers, addresses] = [
    await Promise.all(reading.numbers.map((number) => numberTold(services, number))),
    await Promise.all(emails.map((email) => addressTold(services, email))),
  ]
  return {
    reading: { ...reading, numbers: [...reading.numbers], repairs: [...reading.repairs] },
    numbers,
    addresses,
  }
}

async function numberTold(services: Services, number: ReadNumber): Promise<LookedUp['numbers'][number]> {
  const { db, now } = services
  const { e164, country, valid } = number
  const facts = (await factsOfNumbers(db, [e164])).get(e164)
  const { lineType, status, knownFrom } = describeLine(number, facts)
  const settings = await readCheckSettings(db)
  const terms = await factTerms(db, LINES)
  const suppressions = await suppressedBy(services, { e164s: [e164], addresses: [], domain: '' })
  const isQuiet = isClosed(joinScopes(suppressions.map(({ scope }) => scope)), 'calls')
  const isKnown = !needsCheck(facts, now(), settings.freshDays)
  return {
    e164,
    country,
    valid,
    lineType,
    status,
    knownFrom,
    region: numberFacts(e164, lineType).region,
    call: isQuiet
      ? ('suppressed' as const)
      : callStateOf(`${country ?? ''} ${timeZonesOf(e164).join('|')}`, settings, now()),
    ...(await holdersTold(services, LINES, e164)),
    suppressedBy: suppressions,
    price: priceOf(terms, isKnown || !valid),
    checkedAt: facts?.checkedAt ? new Date(facts.checkedAt).toISOString() : null,
  }
}

async function addressTold(services: Services, email: ReadEmail): Promise<LookedUp['addresses'][number]> {
  const { db, now } = services
  const facts = (await factsOfAddresses(db, [email.address])).get(email.address)
  const { freshDays } = await readCheckSettings(db)
  const terms = await factTerms(db, ADDRESSES)
  return {
    ...email,
    state: facts?.deliverability ?? 'not-checked',
    ...(await holdersTold(services, ADDRESSES, email.address)),
    suppressedBy: await suppressedBy(services, {
      e164s: [],
      addresses: [email.address],
      domain: email.address.split('@')[1] ?? '',
    }),
    price: priceOf(terms, !needsVerifying(facts, now(), freshDays)),
    checkedAt: facts ? new Date(facts.checkedAt).toISOString() : null,
  }
}

const priceOf = (terms: FactTerms | null, isKnown: boolean): number | null =>
  isKnown ? 0 : terms === null ? null : terms.price

async function suppressedBy({ db }: Services, who: Parameters<typeof suppressionsOf>[1]) {
  return (await suppressionsOf(db, who)).map(({ list, scope, reason, addedAt }) => ({ list, scope, reason, addedAt }))
}

async function holdersTold<A>(
  { db }: Services,
  { holders, column }: Subject<A>,
  subject: string,
): Promise<Pick<LookedUp['numbers'][number], 'holders' | 'held'>> {
  const found = await readRows(db, HOLDER)`
    select distinct c.id as contact_id, c.list_id, l.name as list, c.full_name, c.company, count(*) over () as held
    from ${sql.raw(holders)} h join contacts c on c.id = h.contact_id and c.joined_into is null and ${isShown('c')}
    join lists l on l.id = c.list_id
    where h.${sql.raw(column)} = ${subject} order by c.id limit ${NAMED}`
  return { held: found[0]?.held ?? 0, holders: found.map(({ held: _, ...holder }) => holder) }
}

const HOLDER = { contactId: num, listId: text, list: text, fullName: text, company: text, held: num }

import { type AddressState, type Deliverability, type RegisterFacts, rankAddresses } from '@upper-field/core/check'
import { type HowToSurvive, mergeContacts, suppressibleKeysOf } from '@upper-field/core/pair'
import { type ReadNumber, readPhoneCell, VERDICTS } from '@upper-field/core/phone'
import { type ReadTitle, readTitle, type Scope, scopesOfKeys } from '@upper-field/core/split'
import {
  type CellReading,
  type ChangeCode,
  type ContactValues,
  type MoreValues,
  mergeMore,
  type ProjectedContact,
  type ReadEmail,
  readEmails,
  slipOf,
} from '@upper-field/core/tidy'
import { type NumberOrigin, type Standing, standingOf } from './standingOf'

export type OriginNumber = ReadNumber & { readonly origin: NumberOrigin }

/** A row as it is projected, by the id of its contact. */
export interface SourceRow {
  readonly id: number
  readonly projected: ProjectedContact
  /** How many rows it stands for that say the same; one where that is not told. */
  readonly times?: number
}

/** Everything that makes a contact what it is. */
export interface ContactSources {
  readonly own: SourceRow
  /** Rows of the same person that were joined to this one, in order. */
  readonly members: readonly SourceRow[]
  /** Whose values come first where there are several rows. */
  readonly how: HowToSurvive
  /** Numbers and addresses that providers found, in the order in which they were kept. */
  readonly fills: readonly string[]
  readonly factsOf: (e164: string) => RegisterFacts | undefined
  /** What the verifier has said of an address. */
  readonly verifiedAs: (address: string) => Deliverability | undefined
  /** True for numbers that other contacts of the list hold too. */
  readonly isShared: (e164: string) => boolean
  /** What suppression lists keep a number, address or domain out of; null where none of these is on any. */
  readonly scopesOf: ((key: string) => readonly Scope[]) | null
}

/** A contact as it is shown, filtered and sent: the end of the projection. */
export interface ContactView {
  readonly standing: Standing
  readonly values: ContactValues
  readonly numbers: readonly OriginNumber[]
  /** The best one first. */
  readonly emails: readonly ReadEmail[]
  readonly emailState: AddressState
  /** The phone cell the best number came from; without one, the most promising of the row's own. */
  readonly cell: CellReading | null
  /** What the title says of function and level. */
  readonly title: ReadTitle
  /** Codes of everything that was made another in its own row. */
  readonly changes: readonly ChangeCode[]
  /** How promising the cells of its own row are that need a person; 0 where none does. */
  readonly hand: number
  /** The slip of the most promising one, where a mending is proposed. */
  readonly slip: string
  /** What stands in columns that became no field, in this row and in those joined to it. */
  readonly extras: readonly string[]
  /** The same by their columns, and what has a place of its own besides. */
  readonly more: MoreValues
}

/** row → mapping → fills → joins → line facts → lane. Pure: the same sources give the same view. */
export function viewOf({
  own: ownRow,
  members,
  how,
  fills,
  factsOf,
  verifiedAs,
  isShared,
  scopesOf,
}: ContactSources): ContactView {
  const own = ownRow.projected
  const merged = mergeContacts([withOrigin(ownRow, 'row'), ...members.map((member) => withOrigin(member, 'join'))], how)
  const known = new Set(merged.numbers.map(({ e164 }) => e164))
  const filled = fills.filter((value) => !value.includes('@') && !known.has(value)).flatMap(readFilled)
  const numbers = [...merged.numbers, ...filled]
  const stateOf = (address: string): AddressState => verifiedAs(address) ?? 'not-checked'
  const emails = rankAddresses(withFilled(merged.emails, fills), stateOf)
  const emailState = emails[0] ? stateOf(emails[0].address) : 'none'
  const suppressedFor = scopesOf
    ? scopesOfKeys(suppressibleKeysOf({ values: merged.values, numbers, emails }), scopesOf)
    : []
  const standing = standingOf({
    numbers,
    hasOwnEmail: merged.emails.length > 0,
    hasEmail: emails.length > 0,
    emailState,
    suppressedFor,
    factsOf,
    isShared,
  })
  return {
    standing,
    values: merged.values,
    numbers,
    emails,
    emailState,
    cell: cellOf([own, ...members.map(({ projected }) => projected)], standing.placed.best?.e164),
    extras: members.length === 0 ? own.extras : [ownRow, ...members].flatMap(({ projected }) => projected.extras),
    more: members.length === 0 ? own.more : mergeMore([ownRow, ...members].map(({ projected }) => projected.more)),
    changes: codesOf(own.changes),
    hand: own.hand[0]?.rank ?? 0,
    slip: slipOf(own.hand),
    title: readTitle(merged.values.title),
  }
}

function codesOf(changes: ProjectedContact['changes']): readonly ChangeCode[] {
  if (changes.length < 2) return changes.map(({ code }) => code)
  return [...new Set(changes.map(({ code }) => code))]
}

function cellOf(rows: readonly ProjectedContact[], best: string | undefined): CellReading | null {
  const cells = rows.flatMap(({ readings }) => readings)
  const source = cells.find(({ reading }) => reading.numbers.some(({ e164 }) => e164 === best))
  const own = rows[0]?.readings ?? []
  return source ?? VERDICTS.flatMap((verdict) => own.filter(({ reading }) => reading.verdict === verdict))[0] ?? null
}

const from = (number: ReadNumber, origin: NumberOrigin): OriginNumber => ({
  e164: number.e164,
  country: number.country,
  lineType: number.lineType,
  extension: number.extension,
  label: number.label,
  valid: number.valid,
  possible: number.possible,
  origin,
})

const withOrigin = ({ id, times = 1, projected: contact }: SourceRow, origin: NumberOrigin) => ({
  id,
  times,
  values: contact.values,
  numbers: contact.numbers.map((number) => from(number, origin)),
  emails: contact.emails,
})

/** Addresses that were found stand behind those that were there. */
function withFilled(emails: readonly ReadEmail[], fills: readonly string[]): readonly ReadEmail[] {
  const found = fills.filter((value) => value.includes('@') && !emails.some(({ address }) => address === value))
  return found.length === 0 ? emails : [...emails, ...found.flatMap((value) => readEmails(value))]
}

function readFilled(e164: string): OriginNumber[] {
  return readPhoneCell(e164).numbers.map((number) => from(number, 'fill'))
}

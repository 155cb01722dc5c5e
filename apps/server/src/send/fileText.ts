import {
  type AudienceShape,
  type FileLayout,
  type FilePerson,
  fileHead,
  filePart,
  headingsIn,
  headingsOf,
  prepareMember,
  USUAL_LAYOUT,
} from '@upper-field/core/send'
import { csvLine } from '@upper-field/core/table'
import type { Db } from '../db/database'
import type { editions } from '../db/schema'
import { sha256Hex } from '../sha256'
import { type Extras, extrasOf, NO_EXTRAS } from './extras'
import type { SendableContact } from './members'

export type EditionRow = typeof editions.$inferSelect

/** Only files for people hold the columns that became no field. */
export const extrasFor = (db: Db, edition: EditionRow, page: readonly SendableContact[]): Promise<Extras> =>
  edition.form === 'people' ? extrasOf(db, edition.listId, page) : Promise.resolve(NO_EXTRAS)

export const layoutOf = ({ layout }: EditionRow): FileLayout => layout ?? USUAL_LAYOUT

export const headOf = (edition: EditionRow, shape: AudienceShape | null, extras: readonly string[]): string =>
  shape === null ? fileHead(layoutOf(edition), headingsIn(layoutOf(edition), extras)) : csvLine(headingsOf(shape))

/** One contact as a part of the file; null where its destination cannot take it. */
export function textFor(
  edition: EditionRow,
  shape: AudienceShape | null,
  member: SendableContact,
  { extras, besides }: { readonly extras: Extras; readonly besides: Besides | undefined },
): string | null {
  if (shape === null) return filePart(layoutOf(edition), personOf(member, besides), extrasIn(extras, member.id))
  const prepared = prepareMember(member, shape, { hash: edition.form === 'hashed' ? sha256Hex : null })
  return prepared.status === 'ready' ? csvLine(prepared.cells) : null
}

const extrasIn = ({ headings, of }: Extras, contactId: number): ReadonlyMap<string, string> => {
  const known = of(contactId)
  return new Map(headings.map((heading) => [heading, known.get(heading) ?? '']))
}

/** What of a contact stands in its file beyond itself: what was found of it, and where it stands in its own file. */
export interface Besides {
  readonly foundNumber: string
  readonly foundEmail: string
  readonly sameAsRow: string
}

const NOTHING: Besides = { foundNumber: '', foundEmail: '', sameAsRow: '' }

/** A contact as it stands in a file that people open. */
export function personOf(
  { record, knownNumbers, emails, suppressedFor }: SendableContact,
  besides: Besides = NOTHING,
): FilePerson {
  const text = (column: string) => String(record[column] ?? '')
  const more = record.more as Readonly<Record<string, string>>
  return {
    fullName: text('full_name'),
    givenName: text('given_name'),
    familyName: text('family_name'),
    company: text('company'),
    title: text('title'),
    numbers: knownNumbers,
    emails,
    street: text('street'),
    postalCode: text('postal_code'),
    city: text('city'),
    region: text('region'),
    country: text('country'),
    site: text('told_domain'),
    profile: text('profile'),
    birthDate: text('birth_date'),
    gender: more['@gender'] ?? '',
    industry: more['@industry'] || text('told_industry'),
    companyPage: more['@page'] || text('told_page'),
    value: more['@value'] ?? '',
    deviceId: more['@device'] ?? '',
    lane: text('lane'),
    notFor: suppressedFor,
    lineType: text('line_type'),
    lineStatus: text('line_status'),
    asItStood: text('raw_number'),
    verdict: text('verdict'),
    emailState: text('email_state'),
    ...besides,
  }
}

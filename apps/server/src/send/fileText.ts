import {
  type FileLayout,
  type FilePerson,
  fileHead,
  filePart,
  headingsIn,
  type SendField,
  USUAL_LAYOUT,
} from '@upper-field/core/send'
import type { editions } from '../db/schema'
import type { Extras } from './extras'
import type { SendableContact } from './members'

export type EditionRow = typeof editions.$inferSelect

export const layoutOf = ({ layout }: EditionRow): FileLayout => layout ?? USUAL_LAYOUT

export const headFor = (edition: EditionRow, extras: readonly string[]): string =>
  fileHead(layoutOf(edition), headingsIn(layoutOf(edition), extras))

/** How contacts become parts of a file for people: with their extra columns, and what is known beside them. */
export const partOf = (
  edition: EditionRow,
  member: SendableContact,
  { extras, besides }: { readonly extras: Extras; readonly besides: Besides | undefined },
): string => filePart(layoutOf(edition), personOf(member, besides), extrasIn(extras, member.id))

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
  { values, country, lane, knownNumbers, emails, suppressedFor, told }: SendableContact,
  besides: Besides = NOTHING,
): FilePerson {
  const text = (field: SendField) => values[field]?.[0] ?? ''
  return {
    fullName: text('full-name'),
    givenName: text('given-name'),
    familyName: text('family-name'),
    company: text('company'),
    title: text('title'),
    numbers: knownNumbers,
    emails,
    street: text('street'),
    postalCode: text('postal-code'),
    city: text('city'),
    region: text('region'),
    country,
    site: text('site'),
    profile: told.profile ?? '',
    birthDate: text('birth-date'),
    gender: text('gender'),
    industry: text('industry'),
    companyPage: text('company-page'),
    value: text('value'),
    deviceId: text('device-id'),
    lane,
    notFor: suppressedFor,
    lineType: told.line_type ?? '',
    lineStatus: told.line_status ?? '',
    asItStood: told.raw_number ?? '',
    verdict: told.verdict ?? '',
    emailState: told.email_state ?? '',
    ...besides,
  }
}

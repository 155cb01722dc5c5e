import type { CopyValue } from '../db/copy'
import { searchText } from './searchText'
import type { ContactView } from './viewOf'

/** Who a projected contact is. */
export interface ContactKey {
  readonly id: number
  readonly listId: string
  readonly batchId: string
  readonly row: number
}

export const CONTACT_COLUMNS = [
  'id',
  'list_id',
  'batch_id',
  'row',
  'full_name',
  'given_name',
  'family_name',
  'company',
  'title',
  'city',
  'region',
  'postal_code',
  'street',
  'birth_date',
  'domain',
  'profile',
  'country',
  'more',
  'number',
  'raw_number',
  'email',
  'line_type',
  'line_status',
  'known_from',
  'verdict',
  'changes',
  'hand',
  'hand_slip',
  'is_readable',
  'is_dead',
  'is_filled',
  'wants_mobile',
  'is_shared',
  'lane',
  'lane_reason',
  'email_kind',
  'email_state',
  'sureness',
  'call_from',
  'suppressed_for',
  'job_functions',
  'job_level',
  'can_text',
  'can_call',
  'joined',
  'search',
] as const // prettier-ignore

export const NUMBER_COLUMNS = [
  'list_id',
  'contact_id',
  'position',
  'e164',
  'extension',
  'label',
  'country',
  'line_type',
  'is_valid',
  'origin',
] as const
export const EMAIL_COLUMNS = ['list_id', 'contact_id', 'position', 'address', 'kind'] as const

export interface ContactLines {
  readonly contact: readonly CopyValue[]
  readonly numbers: readonly (readonly CopyValue[])[]
  readonly emails: readonly (readonly CopyValue[])[]
}

/** One contact as lines of its three tables, in the order of the column lists above. */
export function linesOf(key: ContactKey, view: ContactView, joined: number): ContactLines {
  const { values, best } = view
  return {
    contact: [
      key.id,
      key.listId,
      key.batchId,
      key.row,
      values.fullName,
      values.givenName,
      values.familyName,
      values.company,
      values.title,
      values.city,
      values.region,
      values.postalCode,
      values.street,
      values.birthDate,
      values.domain,
      values.profile,
      values.country,
      moreText(view.more),
      best?.e164 ?? null,
      rawOf(view),
      view.emails[0]?.address ?? null,
      best?.lineType ?? 'unknown',
      best?.status ?? 'unknown',
      best?.knownFrom ?? 'plan',
      view.cell?.reading.verdict ?? 'empty',
      view.changes,
      view.hand,
      view.slip,
      view.isReadable,
      view.isDead,
      view.isFilled,
      view.wantsMobile,
      best?.isShared ?? false,
      view.placement.lane,
      view.placement.reason,
      view.emails[0]?.kind ?? 'none',
      view.emailState,
      view.sureness,
      view.callFrom,
      view.suppressedFor.join(' '),
      view.title.functions.join(' '),
      view.title.level ?? '',
      view.canText,
      view.canCall,
      joined,
      searchText(view),
    ], // prettier-ignore
    numbers: view.numbers.map((number, i) => [
      key.listId,
      key.id,
      i,
      number.e164,
      number.extension,
      number.label,
      number.country,
      number.lineType,
      number.valid,
      number.origin,
    ]), // prettier-ignore
    emails: view.emails.map((email, i) => [key.listId, key.id, i, email.address, email.kind]),
  }
}

const NOTHING = '{}'

/** Most contacts know nothing more: that is written without making it anew. */
function moreText(more: ContactView['more']): string {
  for (const _ in more) return JSON.stringify(more)
  return NOTHING
}

/** What stood in the row for the number shown: nothing where a provider found it. */
function rawOf({ cell, best, numbers }: ContactView): string {
  const isFound = numbers.some(({ e164, origin }) => e164 === best?.e164 && origin === 'fill')
  return isFound ? '' : (cell?.raw.trim().slice(0, 120) ?? '')
}

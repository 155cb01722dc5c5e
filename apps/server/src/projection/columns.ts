import type { AddressState } from '@upper-field/core/check'
import type { CopyLine, CopyValue } from '../db/copyText'
import type { Placed } from './placementOf'
import { searchText } from './searchText'
import type { Standing } from './standingOf'
import type { ContactView } from './viewOf'

/** Who a projected contact is. */
export interface ContactKey {
  readonly id: number
  readonly listId: string
  readonly batchId: string
  readonly row: number
}

/** What depends on who else holds a number, and on who said no. */
export const PLACEMENT_COLUMNS = [
  'is_shared',
  'lane',
  'lane_reason',
  'call_from',
  'suppressed_for',
  'can_text',
  'can_call',
] as const

/** What is otherwise where something is learnt of a number or an address, whichever is the best one. */
export const STANDING_COLUMNS = [
  'line_type',
  'line_status',
  'known_from',
  'is_dead',
  'is_filled',
  'wants_mobile',
  'email_state',
  'sureness',
  ...PLACEMENT_COLUMNS,
] as const

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
  'verdict',
  'changes',
  'hand',
  'hand_slip',
  'is_readable',
  'email_kind',
  'job_functions',
  'job_level',
  ...STANDING_COLUMNS,
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
  readonly contact: CopyLine
  readonly numbers: readonly CopyLine[]
  readonly emails: readonly CopyLine[]
}

/** One contact as lines of its three tables, in the order of the column lists above. */
export function linesOf(key: ContactKey, view: ContactView, joined: number): ContactLines {
  const { values, standing } = view
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
      standing.placed.best?.e164 ?? null,
      rawOf(view),
      view.emails[0]?.address ?? null,
      view.cell?.reading.verdict ?? 'empty',
      view.changes,
      view.hand,
      view.slip,
      standing.isReadable,
      view.emails[0]?.kind ?? 'none',
      view.title.functions.join(' '),
      view.title.level ?? '',
      ...standingCells(standing, view.emailState),
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

/** In the order of `PLACEMENT_COLUMNS`. */
export const placementCells = ({ best, placement, callFrom, suppressedFor, canText, canCall }: Placed): CopyValue[] => [
  best?.isShared ?? false,
  placement.lane,
  placement.reason,
  callFrom,
  suppressedFor.join(' '),
  canText,
  canCall,
]

/** In the order of `STANDING_COLUMNS`. */
export const standingCells = (one: Standing, emailState: AddressState): CopyValue[] => [
  one.placed.best?.lineType ?? 'unknown',
  one.placed.best?.status ?? 'unknown',
  one.placed.best?.knownFrom ?? 'plan',
  one.isDead,
  one.isFilled,
  one.wantsMobile,
  emailState,
  one.sureness,
  ...placementCells(one.placed),
]

/** Most contacts know nothing more: that is written without making it anew. */
function moreText(more: ContactView['more']): string {
  for (const _ in more) return JSON.stringify(more)
  return NOTHING
}

/** What stood in the row for the number shown: nothing where a provider found it. */
function rawOf({ cell, standing, numbers }: ContactView): string {
  const isFound = numbers.some(({ e164, origin }) => e164 === standing.placed.best?.e164 && origin === 'fill')
  return isFound ? '' : (cell?.raw.trim().slice(0, 120) ?? '')
}

import { REPAIRS } from '../phone'

/** What mending does to a name. */
export const NAME_CODES = [
  'name-order',
  'name-case',
  'name-title',
  'name-credentials',
  'name-decoration',
  'name-nickname',
  'name-role',
  'name-remark',
  'name-company',
  'name-email',
] as const

/** What a routine does to a value. One code, one plain sentence (in the web client). */
export const TIDY_CODES = [
  'html-entities',
  'broken-letters',
  'refusal',
  'blank-word',
  ...NAME_CODES,
  'company-case',
  'company-legal-form',
  'email-form',
  'email-mended',
  'several-emails',
  'country-code',
  'region-code',
  'postal-code-form',
  'postal-code-zero',
  'date-form',
  'web-domain',
  'profile-form',
  'replaced',
  'derived',
  'edited',
] as const
export type TidyCode = (typeof TIDY_CODES)[number]

/** Every repair that is counted: those of phone cells, and those of everything else. */
export const CHANGE_CODES = ['number-form', ...REPAIRS, ...TIDY_CODES] as const
export type ChangeCode = (typeof CHANGE_CODES)[number]

/** Columns that steps add, by the repair that fills them: a list in which it was never made has no use for them. */
export const ADDED_BY: Readonly<Record<string, ChangeCode>> = {
  Refusal: 'refusal',
  'Name title': 'name-title',
  Nickname: 'name-nickname',
  'Name remark': 'name-remark',
  'Second person': 'edited',
  Credentials: 'name-credentials',
  'Legal form': 'company-legal-form',
  'Postal code extension': 'postal-code-form',
}

/** One value that a step, or a person, made another. */
export interface Change {
  /** Id of the step; `edit` for a person's own. */
  readonly step: string
  readonly code: ChangeCode
  /** Name of the column. */
  readonly column: string
  readonly was: string
  readonly is: string
}

/** Step name of edits. */
export const EDIT = 'edit'

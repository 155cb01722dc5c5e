import {
  AMOUNT_FIELDS,
  type ColumnTerm,
  DATE_FIELDS,
  FILTER_FIELDS,
  type FilterNode,
  type Term,
} from '@upper-field/core/split'
import { columnKey } from '@upper-field/core/table'
import { type SQL, sql } from 'drizzle-orm'
import { anyHolds } from '../db/spans'
import { searchTerms } from '../projection/searchText'
import { BEYOND_CUBE, type Place, pileCondition } from './facets'
import { anywhere, holdsTyped } from './wordPatterns'

/** Texts, dates and amounts of a contact, as expressions on the table. Whatever is not there is an empty text, or null. */
const EXPRESSION: Readonly<Partial<Record<Term['field'] | 'country', string>>> = {
  name: 'full_name',
  company: 'company',
  title: 'title',
  city: 'city',
  region: 'region',
  postal: 'postal_code',
  street: 'street',
  site: 'domain',
  email: 'email',
  number: 'number',
  profile: 'profile',
  industry: "more->>'@industry'",
  page: "more->>'@page'",
  gender: "more->>'@gender'",
  device: "more->>'@device'",
  value: "(more->>'@value')::numeric",
  country: 'country',
  birth: "nullif(birth_date, '')",
  added: "to_char(b.created_at at time zone 'UTC', 'YYYY-MM-DD')",
  gathered: 'b.gathered_on::text',
  cost: `(select coalesce(sum(k.amount), 0) / 1000000.0 from (
    select contacts.id union all select j.id from contacts j where contacts.joined > 0 and j.joined_into = contacts.id) w
    join charges k on k.contact_id = w.id)`,
  joined: 'joined',
}

/** Dates of a batch, expressed on `batches b`: the same for all its contacts. */
const BATCH_DATES = ['added', 'gathered'] as const

/** True for a part of a filter that the counts of a list can tell too: of facets and of dates of batches. */
export function isCounted(node: FilterNode): boolean {
  if (node.kind === 'and' || node.kind === 'or') return node.of.every(isCounted)
  if (node.kind === 'not') return isCounted(node.of)
  if (node.kind !== 'term') return false
  if (node.field === 'missing' || node.field === 'has')
    return node.values.every((value) => Object.hasOwn(COUNTED_PRESENCE, value))
  return isAmong(BATCH_DATES, node.field) || isCountedFacet(node.field)
}

/** What tells that a field is empty, where the counts of a list know of it: a condition on the table and on its counts. */
const COUNTED_PRESENCE: Readonly<Record<string, string>> = { email: "email_kind = 'none'", country: "country = ''" }

const isCountedFacet = (field: string): boolean => isAmong(FILTER_FIELDS, field) && !BEYOND_CUBE.has(field)

/** A part of a filter beyond facets and words, as a condition on the table, or on its counts. All values are parameters. */
export function nodeCondition(node: FilterNode, place: Place = 'table'): SQL {
  switch (node.kind) {
    case 'and':
    case 'or':
      return sql`(${sql.join(
        node.of.map((one) => nodeCondition(one, place)),
        node.kind === 'and' ? sql` and ` : sql` or `,
      )})`
    case 'not':
      // What is not known does not hold: neither does it hold that it is otherwise.
      return sql`not coalesce(${nodeCondition(node.of, place)}, false)`
    case 'words': {
      const terms = searchTerms(node.text)
      return terms.length === 0 ? sql`true` : sql`(${sql.join(terms.map(holds), sql` and `)})`
    }
    case 'phrase':
      return holds(searchTerms(node.text).join(' '))
    case 'term':
      return termCondition(node, place)
    case 'column':
      return columnCondition(node)
  }
}

const holds = (text: string): SQL => holdsTyped('search', text)

function termCondition(term: Term, place: Place): SQL {
  const { field, operator, values } = term
  if (isAmong(FILTER_FIELDS, field)) {
    const chosen = pileCondition(field, values, place)
    return operator === '!=' ? sql`not coalesce(${chosen}, false)` : chosen
  }
  // Asked of the batches once, not of every contact.
  if (isAmong(BATCH_DATES, field)) return sql`batch_id in (select b.id from batches b where ${comparedWith(term)})`
  switch (field) {
    case 'missing':
      return eachOf(values, isEmpty)
    case 'has':
      return eachOf(values, (value) => sql`not ${isEmpty(value)}`)
    case 'asked':
      return negated(
        operator,
        standsForSome(sql`select contact_id from attempts where provider = any(${sql.param([...values])}::text[])`),
      )
    case 'found':
      return negated(
        operator,
        standsForSome(sql`
          select contact_id from fills where undone_at is null and provider = any(${sql.param([...values])}::text[])`),
      )
    case 'sent':
      return negated(
        operator,
        ofItOrJoined((id) => anyHolds(membersOf(values), id)),
      )
    case 'audience':
      return negated(
        operator,
        standsForSome(sql`
          select m.contact_id from audience_members m join audiences a on a.id = m.audience_id
          where a.id::text = any(${sql.param([...values])}::text[]) or a.name = any(${sql.param([...values])}::text[])`),
      )
    default:
      return comparedWith(term)
  }
}

/** Who is in files and audiences for these destinations, as spans and their bits. */
const membersOf = (destinations: readonly string[]): SQL => sql`
  select m.span, bit_or(m.bits) as bits from edition_members m join editions e on e.id = m.edition_id
  where e.state = 'ready' and e.destination = any(${sql.param([...destinations])}::text[]) group by m.span`

/** True for a contact that is told of in a query of `contact_id`, or stands for one that is. */
const standsForSome = (told: SQL): SQL => sql`contacts.id in (
  select coalesce(m.joined_into, m.id) from (${told}) told join contacts m on m.id = told.contact_id)`

/** A condition on a contact that holds of it, or of one that is joined to it. */
const ofItOrJoined = (holdsOf: (id: SQL) => SQL): SQL =>
  sql`(${holdsOf(sql`contacts.id`)} or (contacts.joined > 0 and exists (
    select 1 from contacts j where j.joined_into = contacts.id and ${holdsOf(sql`j.id`)})))`

const isAmong = <T extends string>(all: readonly T[], field: string): field is T =>
  (all as readonly string[]).includes(field)

const expressionOf = (field: string): SQL => sql.raw(EXPRESSION[field as keyof typeof EXPRESSION] ?? "''")

const isEmpty = (name: string): SQL =>
  Object.hasOwn(COUNTED_PRESENCE, name)
    ? sql`(${sql.raw(COUNTED_PRESENCE[name] ?? 'false')})`
    : sql`(coalesce(${presenceOf(name)}, '') = '')`

/** What is looked at to tell whether something is known: a field, or a column of the list's own. */
const presenceOf = (name: string): SQL => {
  if (name === 'value') return sql`more->>'@value'`
  return Object.hasOwn(EXPRESSION, name) && !isAmong(BATCH_DATES, name)
    ? expressionOf(name)
    : sql`more->>${columnKey(name)}`
}

/** A cell as a number, where it is one: thousands may be set apart by spaces, and a comma may stand for the point. */
const asNumber = (cell: SQL): SQL =>
  sql`case when ${cell} ~ '^\\s*-?\\d[\\d ]{0,14}([.,]\\d{1,9})?\\s*$' then replace(replace(${cell}, ' ', ''), ',', '.')::numeric end`

/** Numbers by their size; dates, of which a year is one too, and words by their letters. */
function ordered(cell: SQL, operator: '<' | '>' | '<=' | '>=', value: string, isNumber: boolean): SQL {
  const byLetters = sql`${cell} ${sql.raw(operator)} ${value}`
  if (!isNumber) return byLetters
  const bySize = sql`${asNumber(cell)} ${sql.raw(operator)} ${value}::numeric`
  return /^\d{4}$/.test(value) ? sql`(${bySize} or (${cell} ~ '^\\d{4}-\\d\\d' and ${byLetters}))` : bySize
}

/** A column of the list's own compared with values: as numbers where both are, as dates or words where not. */
function columnCondition({ column, operator, values }: ColumnTerm): SQL {
  const cell = sql`(more->>${column})`
  const isNumber = (value: string) => /^-?\d{1,15}(?:\.\d{1,9})?$/.test(value)
  const one = (value: string): SQL => {
    const [low = '', high = ''] = value.split('..')
    if (value.includes('..') && [low, high].every((part) => part === '' || isNumber(part)))
      return sql`(${low === '' ? sql`true` : sql`${asNumber(cell)} >= ${low}::numeric`} and ${high === '' ? sql`true` : sql`${asNumber(cell)} <= ${high}::numeric`})`
    if (operator === '<' || operator === '>' || operator === '<=' || operator === '>=')
      return ordered(cell, operator, value, isNumber(value))
    if (operator === ':' && !isNumber(value)) return sql`${cell} ilike ${anywhere(value)}`
    return isNumber(value)
      ? sql`(${asNumber(cell)} = ${value}::numeric or ${cell} = ${value})`
      : sql`lower(${cell}) = lower(${value})`
  }
  const any = sql`coalesce((${sql.join(values.map(one), sql` or `)}), false)`
  return operator === '!=' ? sql`not ${any}` : any
}

/** `missing:email,city` lacks both, `has:email,city` has both. */
const eachOf = (values: readonly string[], of: (value: string) => SQL): SQL =>
  sql`(${sql.join(values.map(of), sql` and `)})`

const negated = (operator: Term['operator'], condition: SQL): SQL =>
  operator === '!=' ? sql`not ${condition}` : condition

/** A text, a date or an amount compared with values: with one of several, or lying between two. */
function comparedWith({ field, operator, values }: Term): SQL {
  const expression = expressionOf(field)
  const isAmount = isAmong(AMOUNT_FIELDS, field)
  if (!isAmount && !isAmong(DATE_FIELDS, field)) {
    const one = (value: string) =>
      operator === ':' ? sql`${expression} ilike ${anywhere(value)}` : sql`lower(${expression}) = lower(${value})`
    return negated(operator, sql`coalesce((${sql.join(values.map(one), sql` or `)}), false)`)
  }
  const literal = (value: string) => (isAmount ? sql`${value}::numeric` : sql`${value}::text`)
  if (operator !== ':' && operator !== '=' && operator !== '!=')
    return sql`(${sql.join(
      values.map((value) => sql`${expression} ${sql.raw(operator)} ${literal(value)}`),
      sql` or `,
    )})`
  const between = (value: string): SQL => {
    const [low = '', high = low] = value.split('..')
    if (value.includes('..'))
      return sql`(${low === '' ? sql`true` : sql`${expression} >= ${literal(low)}`} and ${high === '' ? sql`true` : upTo(high)})`
    // A day of a month, or of a year, where no day is told.
    return isAmount ? sql`${expression} = ${literal(value)}` : sql`${expression} like ${`${value}%`}`
  }
  const upTo = (high: string): SQL =>
    isAmount ? sql`${expression} <= ${literal(high)}` : sql`${expression} < ${`${high}~`}`
  return negated(operator, sql`coalesce((${sql.join(values.map(between), sql` or `)}), false)`)
}

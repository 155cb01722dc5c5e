import { AMOUNT_FIELDS, DATE_FIELDS, FILTER_FIELDS, type FilterNode, type Term } from '@upper-field/core/split'
import { type SQL, sql } from 'drizzle-orm'
import { searchTerms } from '../projection/searchText'
import { pileCondition } from './facets'

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
  country: 'country',
  birth: "nullif(birth_date, '')",
  added:
    "(select to_char(b.created_at at time zone 'UTC', 'YYYY-MM-DD') from batches b where b.id = contacts.batch_id)",
  gathered: '(select b.gathered_on::text from batches b where b.id = contacts.batch_id)',
  cost: '(select coalesce(sum(k.amount), 0) / 1000000.0 from charges k where k.contact_id = contacts.id)',
  joined: 'joined',
}

/** A pattern that finds a text anywhere, whatever stands in it. */
export const anywhere = (text: string): string => `%${text.replace(/[\\%_]/g, '\\$&')}%`

/** A part of a filter beyond facets and words, as a condition on the table. All values are parameters. */
export function nodeCondition(node: FilterNode): SQL {
  switch (node.kind) {
    case 'and':
    case 'or':
      return sql`(${sql.join(node.of.map(nodeCondition), node.kind === 'and' ? sql` and ` : sql` or `)})`
    case 'not':
      // What is not known does not hold: neither does it hold that it is otherwise.
      return sql`not coalesce(${nodeCondition(node.of)}, false)`
    case 'words': {
      const terms = searchTerms(node.text)
      return terms.length === 0 ? sql`true` : sql`(${sql.join(terms.map(holds), sql` and `)})`
    }
    case 'phrase':
      return holds(searchTerms(node.text).join(' '))
    case 'term':
      return termCondition(node)
  }
}

const holds = (text: string): SQL => sql`search like ${anywhere(text)}`

function termCondition(term: Term): SQL {
  const { field, operator, values } = term
  if (isAmong(FILTER_FIELDS, field)) {
    const chosen = pileCondition(field, values, 'table')
    return operator === '!=' ? sql`not coalesce(${chosen}, false)` : chosen
  }
  switch (field) {
    case 'missing':
      return eachOf(values, (value) => sql`coalesce(${expressionOf(value)}, '') = ''`)
    case 'has':
      return eachOf(values, (value) => sql`coalesce(${expressionOf(value)}, '') <> ''`)
    case 'asked':
      return negated(
        operator,
        sql`exists (select 1 from attempts a where a.contact_id = contacts.id and a.provider = any(${sql.param([...values])}::text[]))`,
      )
    case 'found':
      return negated(
        operator,
        sql`exists (select 1 from fills f where f.contact_id = contacts.id and f.undone_at is null and f.provider = any(${sql.param([...values])}::text[]))`,
      )
    case 'sent':
      return negated(
        operator,
        sql`exists (select 1 from edition_members m join editions e on e.id = m.edition_id
        where m.contact_id = contacts.id and e.state = 'ready' and e.destination = any(${sql.param([...values])}::text[]))`,
      )
    default:
      return comparedWith(term)
  }
}

const isAmong = <T extends string>(all: readonly T[], field: string): field is T =>
  (all as readonly string[]).includes(field)

const expressionOf = (field: string): SQL => sql.raw(EXPRESSION[field as keyof typeof EXPRESSION] ?? "''")

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

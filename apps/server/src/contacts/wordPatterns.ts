import { type SQL, sql } from 'drizzle-orm'

/** A pattern that finds a text anywhere, whatever stands in it. */
export const anywhere = (text: string): string => `%${text.replace(/[\\%_]/g, '\\$&')}%`

/** Two letters of a script that parts its words: the trigrams of the index begin with them, but hold no two letters alone. */
const TWO_LETTERS = /^[\p{Script=Latin}\p{Script=Greek}\p{Script=Cyrillic}]{2}$/u

/**
 * True where a text holds what was typed. Anything is found anywhere, but two letters at the start of words alone: there
 * they mean a name, and everywhere else they stand by chance.
 * @param column a column of ours with a folded text
 * @param typed folded alike
 */
export function holdsTyped(column: 'words' | 'search', typed: string): SQL {
  const text = sql.raw(column)
  if (!TWO_LETTERS.test(typed)) return sql`${text} like ${anywhere(typed)}`
  return sql`(${text} like ${`${typed}%`} or ${text} like ${`% ${typed}%`})`
}

import { customType, timestamp, uuid } from 'drizzle-orm/pg-core'

export const bytea = customType<{ data: Buffer }>({ dataType: () => 'bytea' })

/** A moment with its zone. */
export const instant = (name: string) => timestamp(name, { withTimezone: true })

export const id = () => uuid('id').primaryKey().defaultRandom()

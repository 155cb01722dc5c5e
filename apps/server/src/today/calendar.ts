import { randomBytes } from 'node:crypto'
import type { AudienceFacts } from '@upper-field/core/today'
import { eq } from 'drizzle-orm'
import ical, { ICalCalendarMethod } from 'ical-generator'
import type { Db } from '../db/database'
import { calendars } from '../db/schema'
import { notFound } from '../http/problem'
import { sha256Hex } from '../sha256'

/** Makes the secret by which somebody's reminders are read; the one before ends. */
export async function makeSecret(db: Db, personId: string, at: Date): Promise<string> {
  const secret = randomBytes(24).toString('base64url')
  const kept = { secretHash: sha256Hex(secret), madeAt: at }
  await db
    .insert(calendars)
    .values({ personId, ...kept })
    .onConflictDoUpdate({ target: calendars.personId, set: kept })
  return secret
}

/** Whose reminders a secret reads. Throws a problem where it is none, or has ended. */
export async function ownerOfSecret(db: Db, secret: string): Promise<string> {
  const [found] = await db
    .select()
    .from(calendars)
    .where(eq(calendars.secretHash, sha256Hex(secret)))
  if (!found) throw notFound('calendar')
  return found.personId
}

/**
 * When audiences want refreshing and when membership in them lapses, as a calendar of whole days. Names of audiences and
 * networks stand in it, and nobody of them.
 * @param url the application's own address, to which each reminder leads
 */
export function calendarOf(audiences: readonly AudienceFacts[], url: string): string {
  const calendar = ical({ name: 'Upper Field: audiences', method: ICalCalendarMethod.PUBLISH })
  const add = (one: AudienceFacts, what: string, at: string, summary: string) =>
    calendar.createEvent({
      id: `${one.id}-${what}@upper-field`,
      start: new Date(at),
      allDay: true,
      summary,
      description: `${one.listName}: ${one.people} people`,
      url: `${url}/lists/${one.listId}/send?audience=${one.id}`,
    })
  for (const one of audiences) {
    if (one.dueAt !== null) add(one, 'due', one.dueAt, `Refresh “${one.name}” at ${one.destination}`)
    if (one.lapsesAt !== null) add(one, 'lapse', one.lapsesAt, `“${one.name}” at ${one.destination} lapses`)
  }
  return calendar.toString()
}

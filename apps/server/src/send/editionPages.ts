import {
  type AudienceShape,
  columnsOf,
  IDENTIFYING_FIELDS,
  type KindsKnown,
  type MemberColumns,
} from '@upper-field/core/send'
import { eq } from 'drizzle-orm'
import type { Db } from '../db/database'
import { audiences } from '../db/schema'
import { JobProblem } from '../jobs/jobProblem'
import { pageOfEntries } from './entryMembers'
import type { EditionRow } from './fileText'
import { sendablePage, wantedBy } from './members'

/** Where a page begins or ends: behind a contact, or behind an entry of a suppression list. */
export type After = { readonly contact: number } | { readonly entry: string }

/** Whom the next lines of an edition are made of, by their places. */
export interface EditionPage {
  readonly members: MemberColumns
  /** Null for an entry of a suppression list. */
  contactAt(at: number): number | null
  /** Empty where nobody knows. */
  batchAt(at: number): string
  isSuppressed(at: number): boolean
  kindsAt(at: number): KindsKnown
  readonly end: After
}

/** Reads those behind a place; null where nobody is left. */
export type ReadEditionPage = (after: After | null) => Promise<EditionPage | null>

/** How the pages of an audience's edition are read: contacts a filter chooses, or entries of a suppression list. */
export async function editionPages(db: Db, edition: EditionRow, shape: AudienceShape): Promise<ReadEditionPage> {
  const { suppressionListId } = await audienceOfEdition(db, edition)
  return suppressionListId === null
    ? (after) => contactsAfter(db, edition, shape, after && 'contact' in after ? after.contact : 0)
    : (after) => entriesAfter(db, suppressionListId, after && 'entry' in after ? after.entry : '')
}

async function audienceOfEdition(db: Db, { audienceId }: EditionRow): Promise<typeof audiences.$inferSelect> {
  const [audience] = audienceId === null ? [] : await db.select().from(audiences).where(eq(audiences.id, audienceId))
  if (!audience) throw new JobProblem('edition-gone')
  return audience
}

async function contactsAfter(
  db: Db,
  { listId, filter }: EditionRow,
  shape: AudienceShape,
  after: number,
): Promise<EditionPage | null> {
  const wanted = wantedBy(shape, { fields: IDENTIFYING_FIELDS, columns: ['batch_id'] })
  const page = await sendablePage(db, { listId, filter, isForPeople: false, wanted }, after)
  return (
    page && {
      members: page.columns,
      contactAt: (at) => page.ids[at] ?? null,
      batchAt: (at) => page.toldAt('batch_id', at),
      isSuppressed: page.isClosed,
      kindsAt: page.kindsAt,
      end: { contact: page.ids.at(-1) ?? after },
    }
  )
}

async function entriesAfter(db: Db, suppressionListId: string, after: string): Promise<EditionPage | null> {
  const { members, last } = await pageOfEntries(db, suppressionListId, after)
  if (last === null) return null
  return {
    members: columnsOf(members),
    contactAt: () => null,
    batchAt: () => '',
    isSuppressed: () => false,
    kindsAt: () => UNKNOWN,
    end: { entry: last },
  }
}

/** Of somebody known by an entry alone nobody knows what kind of address or number it is. */
const UNKNOWN: KindsKnown = { hasPersonalEmail: false, hasWorkEmail: false, hasMobile: false }

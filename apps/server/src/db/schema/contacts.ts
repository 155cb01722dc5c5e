import type {
  AddressState,
  AgesAs,
  CallHours,
  CallState,
  Deliverability,
  FreshDays,
  Line,
  LineStatus,
  Sureness,
} from '@upper-field/core/check'
import type { LineType, NumberLabel, Verdict } from '@upper-field/core/phone'
import type { Lane, LaneReason, Outcome } from '@upper-field/core/split'
import type { ChangeCode, EmailKind, MoreValues } from '@upper-field/core/tidy'
import { sql } from 'drizzle-orm'
import {
  bigint,
  bit,
  boolean,
  date,
  index,
  integer,
  jsonb,
  pgSequence,
  pgTable,
  primaryKey,
  smallint,
  text,
  uniqueIndex,
  uuid,
} from 'drizzle-orm/pg-core'
import { SPAN } from '../spans'
import { instant } from './columns'
import { ofList } from './lists'

export const contactIds = pgSequence('contact_ids')

/** A projection of rows, joins, fills and line facts: can be rebuilt, and rebuilding gives the same. */
export const contacts = pgTable(
  'contacts',
  {
    id: bigint('id', { mode: 'number' }).primaryKey(),
    listId: uuid('list_id').notNull(),
    batchId: uuid('batch_id').notNull(),
    row: integer('row').notNull(),
    fullName: text('full_name').notNull(),
    givenName: text('given_name').notNull(),
    familyName: text('family_name').notNull(),
    company: text('company').notNull(),
    title: text('title').notNull(),
    city: text('city').notNull(),
    region: text('region').notNull(),
    postalCode: text('postal_code').notNull(),
    street: text('street').notNull().default(''),
    /** ISO 8601, or the year alone. */
    birthDate: text('birth_date').notNull().default(''),
    domain: text('domain').notNull(),
    profile: text('profile').notNull(),
    country: text('country').notNull(),
    /** Cells of columns of its own by their key, and `@gender`, `@device`, `@value`, `@industry`, `@page`. */
    more: jsonb('more').$type<MoreValues>().notNull().default({}),
    number: text('number'),
    rawNumber: text('raw_number').notNull(),
    email: text('email'),
    lineType: text('line_type').$type<LineType>().notNull(),
    lineStatus: text('line_status').$type<LineStatus>().notNull(),
    knownFrom: text('known_from').$type<Line['knownFrom']>().notNull(),
    verdict: text('verdict').$type<Verdict>().notNull(),
    /** Codes of everything the routine and people made another here. */
    changes: text('changes').array().$type<ChangeCode[]>().notNull().default(sql`'{}'::text[]`),
    /** How promising its cells are that need a person; 0 where none does. */
    hand: smallint('hand').notNull().default(0),
    /** Problem and kind of mending of the first of them: the same slip stands in many cells. */
    handSlip: text('hand_slip').notNull().default(''),
    /** The row holds a readable number or e-mail, or one that is joined to it does. */
    isReadable: boolean('is_readable').notNull(),
    /** What the row holds is known to be dead: no e-mail, and no line in service. */
    isDead: boolean('is_dead').notNull(),
    /** Reached by a filled value, where the row alone would not do. */
    isFilled: boolean('is_filled').notNull(),
    wantsMobile: boolean('wants_mobile').notNull(),
    isShared: boolean('is_shared').notNull().default(false),
    lane: text('lane').$type<Lane>().notNull(),
    laneReason: text('lane_reason').$type<LaneReason>().notNull(),
    /** Kind of its best address, and what the verifier has said of it; `none` where there is none. */
    emailKind: text('email_kind').$type<EmailKind | 'none'>().notNull().default('none'),
    emailState: text('email_state').$type<AddressState>().notNull().default('none'),
    /** How sure it can be reached. */
    sureness: text('sureness').$type<Sureness>().notNull().default('nothing'),
    /** Country and time zones of the line to call. */
    callFrom: text('call_from').notNull().default(''),
    /** What suppression lists keep it out of, apart by a space. */
    suppressedFor: text('suppressed_for').notNull().default(''),
    /** What the title says: functions apart by a space, and a level. */
    jobFunctions: text('job_functions').notNull().default(''),
    jobLevel: text('job_level').notNull().default(''),
    /** Whether it has a line to text, and one to call, whatever suppression lists say. */
    canText: boolean('can_text').notNull().default(false),
    canCall: boolean('can_call').notNull().default(false),
    /** The lane a person has chosen; empty where none has. */
    laneByHand: text('lane_by_hand').notNull().default(''),
    joined: integer('joined').notNull().default(0),
    joinedInto: bigint('joined_into', { mode: 'number' }),
    search: text('search').notNull(),
  },
  (t) => [
    index('contacts_list').on(t.listId, t.id),
    index('contacts_hand_slip').on(t.listId, t.handSlip, t.id).where(sql`hand_slip <> ''`),
    index('contacts_hand').on(t.listId, t.hand.desc(), t.id).where(sql`hand > 0`),
    // Those without an e-mail are few in most lists, and asked for often.
    index('contacts_without_email').on(t.listId, t.id).where(sql`email_kind = 'none'`),
    index('contacts_batch').on(t.batchId, t.row),
    index('contacts_joined_into').on(t.joinedInto).where(sql`joined_into is not null`),
  ],
)

/** Who was sent in any file or audience: a bit for each id of a span. */
export const sentContacts = pgTable('sent_contacts', {
  span: integer('span').primaryKey(),
  bits: bit('bits', { dimensions: SPAN }).notNull(),
})

export const contactNumbers = pgTable(
  'contact_numbers',
  {
    listId: uuid('list_id').notNull(),
    contactId: bigint('contact_id', { mode: 'number' }).notNull(),
    position: smallint('position').notNull(),
    e164: text('e164').notNull(),
    extension: text('extension'),
    label: text('label').$type<NumberLabel>(),
    country: text('country'),
    lineType: text('line_type').$type<LineType>().notNull(),
    isValid: boolean('is_valid').notNull(),
    /** `row`, `join` (from another row of the same person) or `fill`. */
    origin: text('origin').$type<'row' | 'join' | 'fill'>().notNull(),
  },
  (t) => [primaryKey({ columns: [t.contactId, t.position] }), index('contact_numbers_e164').on(t.e164, t.listId)],
)

export const contactEmails = pgTable(
  'contact_emails',
  {
    listId: uuid('list_id').notNull(),
    contactId: bigint('contact_id', { mode: 'number' }).notNull(),
    position: smallint('position').notNull(),
    address: text('address').notNull(),
    kind: text('kind').$type<EmailKind>().notNull(),
  },
  (t) => [primaryKey({ columns: [t.contactId, t.position] }), index('contact_emails_address').on(t.address, t.listId)],
)

/** What the line register has said about a number, for all lists. */
export const numbers = pgTable('numbers', {
  e164: text('e164').primaryKey(),
  lineType: text('line_type').$type<LineType>(),
  status: text('status').$type<LineStatus>(),
  carrier: text('carrier'),
  isPorted: boolean('is_ported'),
  timeZone: text('time_zone'),
  lastSeen: date('last_seen'),
  checkedAt: instant('checked_at'),
  /** How the answer ages. */
  agesAs: text('ages_as').$type<AgesAs>().notNull().default('mobile'),
})

/** What the verifier has said about an address, for all lists. */
export const addresses = pgTable('addresses', {
  address: text('address').primaryKey(),
  deliverability: text('deliverability').$type<Deliverability>().notNull(),
  checkedAt: instant('checked_at').notNull(),
  agesAs: text('ages_as').$type<AgesAs>().notNull(),
})

/** What do-not-call registers have said about a number, for all lists. */
export const doNotCall = pgTable('do_not_call', {
  e164: text('e164').primaryKey(),
  isListed: boolean('is_listed').notNull(),
  /** Which register told, where the service names it. */
  register: text('register'),
  checkedAt: instant('checked_at').notNull(),
  agesAs: text('ages_as').$type<AgesAs>().notNull(),
})

/** How checks are done here, where somebody has set it. One row, or none. */
export const checkSettings = pgTable('check_settings', {
  isOnly: boolean('is_only').primaryKey().default(true),
  freshDays: jsonb('fresh_days').$type<FreshDays>().notNull(),
  textPrice: bigint('text_price', { mode: 'number' }).notNull(),
  mailPrice: bigint('mail_price', { mode: 'number' }).notNull(),
  /** By country; `*` for all others. */
  callHours: jsonb('call_hours').$type<Record<string, CallHours>>().notNull().default({}),
})

/** Whether lines of a place may be called at this moment; looked at anew every minute somebody asks. */
export const callPlaces = pgTable('call_places', {
  callFrom: text('call_from').primaryKey(),
  state: text('state').$type<CallState>().notNull(),
})

export const joins = pgTable(
  'joins',
  {
    id: bigint('id', { mode: 'number' }).primaryKey().generatedAlwaysAsIdentity(),
    listId: ofList(),
    survivorId: bigint('survivor_id', { mode: 'number' }).notNull(),
    memberId: bigint('member_id', { mode: 'number' }).notNull(),
    keyKind: text('key_kind').notNull(),
    key: text('key').notNull(),
    madeAt: instant('made_at').notNull().defaultNow(),
    undoneAt: instant('undone_at'),
    /** The batch that was taken back and this join with it. */
    suspendedBy: uuid('suspended_by'),
  },
  (t) => [
    uniqueIndex('joins_member_once').on(t.memberId).where(sql`undone_at is null and suspended_by is null`),
    index('joins_survivor').on(t.survivorId),
    index('joins_list').on(t.listId),
  ],
)

/** How many contacts of a batch each repair touched, by its code; `hand` counts those that need a person. */
export const tidyCounts = pgTable(
  'tidy_counts',
  {
    listId: uuid('list_id').notNull(),
    batchId: uuid('batch_id').notNull(),
    code: text('code').notNull(),
    contacts: integer('contacts').notNull(),
  },
  (t) => [index('tidy_counts_list').on(t.listId)],
)

/** Counts of a list's contacts by everything the sieve and the terrace show. */
export const contactCube = pgTable(
  'contact_cube',
  {
    listId: uuid('list_id').notNull(),
    batchId: uuid('batch_id').notNull(),
    country: text('country').notNull(),
    verdict: text('verdict').notNull(),
    lineType: text('line_type').notNull(),
    lineStatus: text('line_status').notNull(),
    knownFrom: text('known_from').notNull(),
    lane: text('lane').$type<Lane>().notNull(),
    laneReason: text('lane_reason').$type<LaneReason>().notNull(),
    emailKind: text('email_kind').$type<EmailKind | 'none'>().notNull().default('none'),
    emailState: text('email_state').$type<AddressState>().notNull().default('none'),
    sureness: text('sureness').$type<Sureness>().notNull().default('nothing'),
    /** Country and time zones of the line to call. */
    callFrom: text('call_from').notNull().default(''),
    suppressedFor: text('suppressed_for').notNull().default(''),
    isReadable: boolean('is_readable').notNull(),
    isDead: boolean('is_dead').notNull(),
    isFilled: boolean('is_filled').notNull(),
    wantsMobile: boolean('wants_mobile').notNull(),
    isShared: boolean('is_shared').notNull(),
    isSent: boolean('is_sent').notNull(),
    isJoined: boolean('is_joined').notNull(),
    hasJoined: boolean('has_joined').notNull(),
    contacts: integer('contacts').notNull(),
  },
  (t) => [index('contact_cube_list').on(t.listId)],
)

/** What came of a call, and what it changed, so that it can be taken back. */
export const calls = pgTable(
  'calls',
  {
    id: uuid('id').primaryKey().defaultRandom(),
    listId: uuid('list_id').notNull(),
    contactId: bigint('contact_id', { mode: 'number' }).notNull(),
    e164: text('e164').notNull(),
    outcome: text('outcome').$type<Outcome>().notNull(),
    againAt: instant('again_at'),
    madeBy: text('made_by').notNull(),
    madeAt: instant('made_at').notNull().defaultNow(),
    /** What the register had said of the number before it was called wrong. */
    before: jsonb('before').$type<Record<string, string | null>>(),
    undoneAt: instant('undone_at'),
  },
  (t) => [index('calls_contact').on(t.contactId, t.madeAt), index('calls_list').on(t.listId, t.madeAt)],
)

import type { AutomationRun, AutomationStep } from '@upper-field/contract'
import { boolean, index, integer, jsonb, pgTable, text, uuid } from 'drizzle-orm/pg-core'
import { id, instant } from './columns'
import { ofList } from './lists'

/** What a list has done by itself. */
export const automations = pgTable(
  'automations',
  {
    id: id(),
    listId: ofList(),
    start: text('start').notNull(),
    hour: integer('hour').notNull(),
    steps: jsonb('steps').$type<AutomationStep[]>().notNull(),
    isOn: boolean('is_on').notNull().default(true),
    /** The last day it was begun for, where it begins with days. */
    lastDay: text('last_day'),
    madeBy: text('made_by').notNull(),
    madeAt: instant('made_at').notNull().defaultNow(),
  },
  (t) => [index('automations_list').on(t.listId)],
)

/** One time that an automation was begun, and how far it is. */
export const automationRuns = pgTable(
  'automation_runs',
  {
    id: id(),
    automationId: uuid('automation_id').notNull(),
    listId: ofList(),
    start: text('start').notNull(),
    batchId: uuid('batch_id'),
    steps: jsonb('steps').$type<AutomationStep[]>().notNull(),
    state: text('state').notNull().default('running'),
    /** What is being worked on, and the job that does it. */
    jobId: uuid('job_id'),
    /** The edition that was prepared and is to be sent. */
    editionId: uuid('edition_id'),
    done: jsonb('done').$type<AutomationRun['done']>().notNull().default([]),
    startedBy: text('started_by').notNull(),
    startedAt: instant('started_at').notNull().defaultNow(),
    finishedAt: instant('finished_at'),
  },
  (t) => [index('automation_runs_list').on(t.listId, t.startedAt), index('automation_runs_state').on(t.state)],
)

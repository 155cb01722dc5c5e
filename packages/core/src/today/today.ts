/** What may want doing today. */
export const TODO_KINDS = [
  'removals-overdue',
  'lapsed',
  'refused',
  'removals',
  'job-stopped',
  'lapses',
  'budget',
  'refresh-due',
  'calls-promised',
  'review',
  'batch-waits',
  'not-sent',
] as const
export type TodoKind = (typeof TODO_KINDS)[number]

/** How pressing it is: red, straw or quiet. */
export type Pressure = 'now' | 'soon' | 'quiet'

export interface Todo {
  readonly kind: TodoKind
  readonly pressure: Pressure
  readonly listId: string | null
  readonly listName: string
  readonly audienceId: string | null
  /** An audience, a job's kind or a batch. */
  readonly name: string
  /** Where the audience is kept. */
  readonly destination: string
  /** How many it is about; two of them where there are two kinds. */
  readonly n: number
  readonly more: number
  /** A moment it is about, ISO 8601; null where there is none. */
  readonly at: string | null
  /** A sentence of a network's. */
  readonly says: string
}

/** An audience as far as it may want something. */
export interface AudienceFacts {
  readonly id: string
  readonly listId: string
  readonly listName: string
  readonly name: string
  readonly destination: string
  readonly people: number
  readonly owed: number
  readonly owedSince: string | null
  readonly state: string
  readonly says: string
  readonly dueAt: string | null
  readonly lapsesAt: string | null
  readonly cameSince: number
  readonly leftSince: number
}

/** A list as far as it may want something. */
export interface ListFacts {
  readonly id: string
  readonly name: string
  readonly toReview: number
  readonly toDecide: number
  readonly notSent: number
  readonly callsPromised: number
  /** Batches that were announced and not brought in, by name and rows. */
  readonly waiting: readonly { readonly name: string; readonly rows: number }[]
  /** Kinds of jobs that failed and were not gone on with. */
  readonly stopped: readonly { readonly kind: string; readonly at: string }[]
}

/** Millionths of a euro. */
export interface MonthFacts {
  readonly spent: number
  readonly limit: number | null
}

const DAY = 86_400_000
/** Membership that ends within so many days is told before it does. */
const LAPSES_WITHIN = 7
const PRESSING_WITHIN = 3
/** From such a share of a month's money on it is told. */
const NEAR_THE_END = 0.8

const EMPTY = {
  listId: null,
  listName: '',
  audienceId: null,
  name: '',
  destination: '',
  n: 0,
  more: 0,
  at: null,
  says: '',
} as const

/**
 * What wants doing today across all lists, the most pressing first: red before straw before quiet, and within each in
 * the order of `TODO_KINDS`, what is older first. What is done is no longer in it.
 * @param now in milliseconds
 */
export function todayOf(
  facts: {
    readonly audiences: readonly AudienceFacts[]
    readonly lists: readonly ListFacts[]
    readonly month: MonthFacts
  },
  now: number,
): readonly Todo[] {
  const todos = [
    ...facts.audiences.flatMap((one) => ofAudience(one, now)),
    ...facts.lists.flatMap(ofList),
    ...ofMonth(facts.month),
  ]
  return todos.sort(
    (a, b) =>
      RANK[a.pressure] - RANK[b.pressure] ||
      TODO_KINDS.indexOf(a.kind) - TODO_KINDS.indexOf(b.kind) ||
      (a.at ?? '').localeCompare(b.at ?? '') ||
      b.n - a.n,
  )
}

const RANK: Readonly<Record<Pressure, number>> = { now: 0, soon: 1, quiet: 2 }

function ofAudience(audience: AudienceFacts, now: number): Todo[] {
  const { id, listId, listName, name, destination, people, owed, owedSince, state, says, dueAt, lapsesAt } = audience
  const about = { ...EMPTY, listId, listName, audienceId: id, name, destination }
  const found: Todo[] = []
  if (owed > 0) {
    const isOverdue = owedSince !== null && now - Date.parse(owedSince) > DAY
    found.push({
      ...about,
      kind: isOverdue ? 'removals-overdue' : 'removals',
      pressure: isOverdue ? 'now' : 'soon',
      n: owed,
      at: owedSince,
    })
  }
  if (state === 'refused') found.push({ ...about, kind: 'refused', pressure: 'now', n: people, says })
  const changes = { n: audience.cameSince, more: audience.leftSince }
  if (state === 'lapsed') found.push({ ...about, kind: 'lapsed', pressure: 'now', n: people, at: lapsesAt })
  else if (lapsesAt !== null && Date.parse(lapsesAt) - now <= LAPSES_WITHIN * DAY)
    found.push({
      ...about,
      kind: 'lapses',
      pressure: Date.parse(lapsesAt) - now <= PRESSING_WITHIN * DAY ? 'now' : 'soon',
      n: people,
      at: lapsesAt,
    })
  else if (dueAt !== null && Date.parse(dueAt) <= now)
    found.push({ ...about, ...changes, kind: 'refresh-due', pressure: 'soon', at: dueAt })
  return found
}

function ofList({ id, name, toReview, toDecide, notSent, callsPromised, waiting, stopped }: ListFacts): Todo[] {
  const about = { ...EMPTY, listId: id, listName: name }
  return [
    ...stopped.map(({ kind, at }): Todo => ({ ...about, kind: 'job-stopped', pressure: 'soon', name: kind, at })),
    ...(callsPromised > 0 ? [{ ...about, kind: 'calls-promised', pressure: 'soon', n: callsPromised } as const] : []),
    ...(toReview + toDecide > 0
      ? [{ ...about, kind: 'review', pressure: 'quiet', n: toReview, more: toDecide } as const]
      : []),
    ...waiting.map(
      (batch): Todo => ({ ...about, kind: 'batch-waits', pressure: 'quiet', name: batch.name, n: batch.rows }),
    ),
    ...(notSent > 0 ? [{ ...about, kind: 'not-sent', pressure: 'quiet', n: notSent } as const] : []),
  ]
}

function ofMonth({ spent, limit }: MonthFacts): Todo[] {
  if (limit === null || limit === 0 || spent < NEAR_THE_END * limit) return []
  return [{ ...EMPTY, kind: 'budget', pressure: spent >= limit ? 'now' : 'soon', n: spent, more: limit }]
}

/** What of a contact is taken from one of its rows, as a whole. */
export const SURVIVOR_PARTS = ['name', 'company', 'title', 'place', 'profile', 'numbers', 'emails'] as const
export type SurvivorPart = (typeof SURVIVOR_PARTS)[number]

/** Whose value comes first: the first row's, the latest row's, the fullest, or what most rows say. */
export const SURVIVORSHIP_RULES = ['first', 'latest', 'fullest', 'commonest'] as const
export type SurvivorshipRule = (typeof SURVIVORSHIP_RULES)[number]

export type Survivorship = Readonly<Record<SurvivorPart, SurvivorshipRule>>

/** The earlier row gives what it has; but of a name, an initial is no match for the whole. */
export const DEFAULT_SURVIVORSHIP: Survivorship = {
  name: 'fullest',
  company: 'first',
  title: 'first',
  place: 'first',
  profile: 'first',
  numbers: 'first',
  emails: 'first',
}

/** The values of each part that are no lists; the one that stands for the part comes first. */
export const PART_FIELDS: Readonly<Partial<Record<SurvivorPart, readonly string[]>>> = {
  name: ['fullName', 'givenName', 'familyName'],
  company: ['company', 'domain'],
  title: ['title'],
  place: ['city', 'region', 'postalCode', 'street', 'country'],
  profile: ['profile'],
}

/** Part of each value; what stands in none is taken from the first row that has it. */
export const PART_OF: Readonly<Record<string, SurvivorPart | undefined>> = Object.fromEntries(
  Object.entries(PART_FIELDS).flatMap(([part, fields]) => fields.map((field) => [field, part as SurvivorPart])),
)

/** How the values of several rows become those of one contact. */
export interface HowToSurvive {
  readonly rules: Survivorship
  /** The row that a person chose for a part, by its id; it comes before what the rule says. */
  readonly chosen: ReadonlyMap<SurvivorPart, number>
}

export const AS_THEY_COME: HowToSurvive = { rules: DEFAULT_SURVIVORSHIP, chosen: new Map() }

/** A row by its id, and what it says about each part: blank where it says nothing. */
export interface PartSource {
  readonly id: number
  /** How many rows it stands for that say the same; one where that is not told. */
  readonly times?: number
  readonly textOf: (part: SurvivorPart) => string
  /** The first value of the part alone: the company without its site. */
  readonly leadOf: (part: SurvivorPart) => string
}

/** The rows in the order in which they give a part; what stands alike stays in the order given. */
export function orderFor<S extends PartSource>(
  part: SurvivorPart,
  rows: readonly S[],
  how: HowToSurvive,
): readonly S[] {
  const rankOf = ranksBy(how.rules[part], part, rows)
  const chosen = how.chosen.get(part)
  const ranked = rows.map((row, at) => ({ row, rank: row.id === chosen ? -Infinity : rankOf(row, at) }))
  return ranked.sort((a, b) => a.rank - b.rank).map(({ row }) => row)
}

/** The lower the sooner. */
function ranksBy(
  rule: SurvivorshipRule,
  part: SurvivorPart,
  rows: readonly PartSource[],
): (row: PartSource, at: number) => number {
  switch (rule) {
    case 'first':
      return () => 0
    case 'latest':
      return (_, at) => -at
    case 'fullest':
      return (row) => -row.textOf(part).length
    case 'commonest': {
      const agreeing = countLeads(part, rows)
      return (row) => -(agreeing.get(leadIn(row, part)) ?? 0)
    }
  }
}

/** How many rows begin a part with the same value; those that say nothing are not told of. */
function countLeads(part: SurvivorPart, rows: readonly PartSource[]): ReadonlyMap<string, number> {
  const counts = new Map<string, number>()
  for (const row of rows) {
    const lead = leadIn(row, part)
    if (lead !== '') counts.set(lead, (counts.get(lead) ?? 0) + (row.times ?? 1))
  }
  return counts
}

const leadIn = (row: PartSource, part: SurvivorPart): string => row.leadOf(part).toLowerCase()

/** The row that gives a part; the first where none says anything of it. */
export function sourceOf<S extends PartSource>(
  part: SurvivorPart,
  rows: readonly S[],
  how: HowToSurvive,
): S | undefined {
  const order = orderFor(part, rows, how)
  return order.find((row) => row.textOf(part) !== '') ?? order[0]
}

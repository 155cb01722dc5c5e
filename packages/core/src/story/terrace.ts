export const STAGES = ['bring', 'tidy', 'pair', 'check', 'fill', 'split', 'send'] as const
export type Stage = (typeof STAGES)[number]

/** Why contacts fall or rise on the way to a step. Each opens exactly the records it counts. */
export const RISERS = [
  'held',
  'nothing-readable',
  'joined',
  'out-of-service',
  'filled',
  'by-post',
  'suppressed',
  'parked',
  'not-sent',
] as const
export type Riser = (typeof RISERS)[number]

export interface TerraceStep {
  readonly stage: Stage
  readonly count: number
  readonly changes: readonly { readonly riser: Riser; readonly by: number }[]
}

/** How a list's rows have fared, told by disjoint facts about contacts. */
export interface TerraceFacts {
  readonly rows: number
  readonly held: number
  /** Contacts with no readable number or e-mail in their row. */
  readonly nothingReadable: number
  readonly joined: number
  readonly outOfService: number
  /** Contacts that could not be reached by their row and can be by a filled value. */
  readonly filled: number
  /** Contacts in a lane that can be reached by a letter alone. */
  readonly byPost: number
  readonly suppressed: number
  /** By rule or hand, suppressed ones left out. */
  readonly parked: number
  readonly notSent: number
}

/** The list's profile: each step is the one before less its falls plus its rises, exactly. */
export function drawTerrace(facts: TerraceFacts): readonly TerraceStep[] {
  const plan: readonly (readonly [Stage, readonly (readonly [Riser, number])[]])[] = [
    [
      'tidy',
      [
        ['held', -facts.held],
        ['nothing-readable', -facts.nothingReadable],
      ],
    ],
    ['pair', [['joined', -facts.joined]]],
    ['check', [['out-of-service', -facts.outOfService]]],
    ['fill', [['filled', facts.filled]]],
    [
      'split',
      [
        ['by-post', facts.byPost],
        ['suppressed', -facts.suppressed],
        ['parked', -facts.parked],
      ],
    ],
    ['send', [['not-sent', -facts.notSent]]],
  ] // prettier-ignore
  const steps: TerraceStep[] = [{ stage: 'bring', count: facts.rows, changes: [] }]
  for (const [stage, changes] of plan) {
    const before = steps.at(-1)?.count ?? 0
    const count = changes.reduce((sum, [, by]) => sum + by, before)
    steps.push({ stage, count, changes: changes.map(([riser, by]) => ({ riser, by })) })
  }
  return steps
}

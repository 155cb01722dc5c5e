/** What is compared, and how two values can stand to each other: the best agreement first. */
export const PAIR_LEVELS = {
  name: ['same', 'like', 'part', 'family', 'given', 'other'],
  number: ['same', 'shared', 'other'],
  email: ['same', 'like', 'role', 'other', 'rival'],
  profile: ['same', 'other'],
  company: ['same', 'like', 'namesake', 'other'],
  place: ['postal', 'city', 'other', 'country'],
} as const

export type PairField = keyof typeof PAIR_LEVELS
export type PairLevel<F extends PairField = PairField> = (typeof PAIR_LEVELS)[F][number]

export const PAIR_FIELDS = Object.keys(PAIR_LEVELS) as PairField[]

/** How two contacts compare, field by field: position of the level, or `UNKNOWN` where one of them says nothing. */
export type Comparison = readonly number[]
export const UNKNOWN = -1

export const levelAt = (comparison: Comparison, field: PairField): PairLevel | null => {
  const at = comparison[PAIR_FIELDS.indexOf(field)] ?? UNKNOWN
  return at === UNKNOWN ? null : (PAIR_LEVELS[field][at] as PairLevel)
}

/** What is compared, and how two values can stand to each other: the best agreement first. */
export const PAIR_LEVELS = {
  name: ['same', 'like', 'slip', 'part', 'family', 'given', 'other'],
  number: ['same', 'shared', 'other'],
  email: ['same', 'like', 'role', 'other', 'rival'],
  profile: ['same', 'other'],
  company: ['same', 'like', 'namesake', 'other'],
  place: ['postal', 'city', 'other', 'country'],
  birth: ['same', 'year', 'like', 'other'],
  street: ['same', 'like', 'other'],
} as const

export type PairField = keyof typeof PAIR_LEVELS
export type PairLevel<F extends PairField = PairField> = (typeof PAIR_LEVELS)[F][number]

export const PAIR_FIELDS = Object.keys(PAIR_LEVELS) as PairField[]

/** Position of a field in `PAIR_FIELDS`. */
export const FIELD = Object.fromEntries(PAIR_FIELDS.map((field, at) => [field, at])) as Readonly<
  Record<PairField, number>
>

/** Position of each level of a field: `LEVEL.name.same`. */
export const LEVEL = Object.fromEntries(
  PAIR_FIELDS.map((field) => [field, Object.fromEntries(PAIR_LEVELS[field].map((level, at) => [level, at]))]),
) as { readonly [F in PairField]: Readonly<Record<PairLevel<F>, number>> }

/** One of two contacts says nothing of a field. */
export const UNKNOWN = -1

/**
 * How two contacts compare, field by field: position of the level or `UNKNOWN`, three bits for each field. As one
 * number it is quick to count, and a million of them are no million objects.
 */
export type Comparison = number

/** No field has more than seven levels. */
const BITS = 3
const MASK = (1 << BITS) - 1

/** A comparison in which a field, given by its position, stands at this level. */
export const atField = (field: number, level: number): Comparison => (level + 1) << (field * BITS)

/** Position of a field's level, or `UNKNOWN`. */
export const levelOf = (comparison: Comparison, field: number): number => ((comparison >> (field * BITS)) & MASK) - 1

/** Comparisons are below this: a number above may tell something beside them. */
export const COMPARISONS = 1 << (BITS * PAIR_FIELDS.length)

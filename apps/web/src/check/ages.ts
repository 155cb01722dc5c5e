import { ANSWER_AGES, type AnswerAge, type AnswerAges } from '@upper-field/contract'

export const AGE: Readonly<Record<AnswerAge, string>> = {
  week: 'within 7 days',
  month: 'within 30 days',
  quarter: 'within 90 days',
  older: 'longer ago',
  never: 'never',
}

/** The answers of all countries together. */
export function allAges(ages: readonly AnswerAges[]): Omit<AnswerAges, 'country'> {
  const sum = (of: (one: AnswerAges) => number) => ages.reduce((total, one) => total + of(one), 0)
  return {
    subjects: sum(({ subjects }) => subjects),
    stale: sum(({ stale }) => stale),
    listed: sum(({ listed }) => listed),
    byAge: Object.fromEntries(
      ANSWER_AGES.map((age) => [age, sum(({ byAge }) => byAge[age] ?? 0)]),
    ) as AnswerAges['byAge'],
  }
}

/** How many have an answer that may be relied on. */
export const freshOf = ({ subjects, stale, byAge }: Omit<AnswerAges, 'country'>): number =>
  subjects - (byAge.never ?? 0) - stale

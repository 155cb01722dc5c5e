import type { PersonInput } from './providers'

/** What a fill can look for. */
export const WANTS = ['mobile', 'any-number', 'work-email', 'personal-email'] as const
export type Want = (typeof WANTS)[number]

/** True where what was found is what is wanted: a mobile is a number too. */
export const satisfies = (found: Want, want: Want): boolean =>
  found === want || (want === 'any-number' && found === 'mobile')

/** True where a service may give what is wanted. */
export const serves = (gives: readonly string[], want: Want): boolean =>
  gives.includes(want) || (want === 'any-number' && gives.includes('mobile'))

/** What is still wanted after some of it was found. */
export const stillWanted = (wants: readonly Want[], found: readonly Want[]): readonly Want[] =>
  wants.filter((want) => !found.some((one) => satisfies(one, want)))

/** An order of its own for contacts of some countries. */
export interface FillBranch {
  readonly countries: readonly string[]
  readonly order: readonly string[]
}

/** On what a step of a plan depends. */
export interface StepCondition {
  /** Only candidates that the provider is at least so sure of, 0 to 100. */
  readonly minScore: number
  /** About how many contacts it is asked at most; null for no limit. */
  readonly mostAsked: number | null
  /** Only where one of these is known; empty for whatever it accepts. */
  readonly inputs: readonly PersonInput[]
  /** Only about contacts of these countries (ISO 3166-1 alpha-2); empty for all. */
  readonly countries: readonly string[]
}

export const NO_CONDITION: StepCondition = { minScore: 0, mostAsked: null, inputs: [], countries: [] }

/** True where a step is for contacts of a country. */
export const isForCountry = ({ countries }: StepCondition, country: string): boolean =>
  countries.length === 0 || countries.includes(country)

/**
 * Who is asked about a contact of a country, in which order: the first branch that names the country decides, else the
 * order for everybody else.
 */
export function orderFor(
  country: string,
  { order, branches }: { readonly order: readonly string[]; readonly branches: readonly FillBranch[] },
): readonly string[] {
  return branches.find(({ countries }) => countries.includes(country))?.order ?? order
}

/** Money in millionths of a euro, so that sums are exact. */
export type Micros = number

export const INPUT_SETS = ['profile', 'name-and-company', 'name-and-domain', 'email'] as const
/** What a provider must be told to look somebody up. */
export type InputSet = (typeof INPUT_SETS)[number]

/** A provider as it is declared: what it needs, how it answers and how it charges. */
export interface ProviderTerms {
  readonly id: string
  readonly name: string
  readonly accepts: readonly InputSet[]
  readonly answers: 'at-once' | 'late'
  readonly charge: { readonly per: 'call' | 'candidate' | 'accepted'; readonly amount: Micros }
  /** Most candidates in one answer. */
  readonly mostCandidates: number
}

export const PROVIDERS: readonly ProviderTerms[] = [
  {
    id: 'tansy',
    name: 'Tansy',
    accepts: ['name-and-company', 'name-and-domain'],
    answers: 'at-once',
    charge: { per: 'candidate', amount: 80_000 },
    mostCandidates: 1,
  },
  {
    id: 'brindle',
    name: 'Brindle',
    accepts: ['profile', 'name-and-domain'],
    answers: 'late',
    charge: { per: 'accepted', amount: 350_000 },
    mostCandidates: 2,
  },
]

/** The line register: price of an answered number. An answer of "unknown" is free. */
export const REGISTER = { id: 'pellow', name: 'Pellow', price: 5_000 } as const

export const findProvider = (id: string): ProviderTerms | undefined => PROVIDERS.find((provider) => provider.id === id)

export interface Askable {
  readonly fullName: string
  readonly company: string
  readonly domain: string
  readonly profile: string
  readonly email: string
}

/** The first input set of the provider that the contact can serve; null where it has none of them. */
export function inputFor(provider: ProviderTerms, contact: Askable): InputSet | null {
  const has: Record<InputSet, boolean> = {
    profile: contact.profile !== '',
    'name-and-company': contact.fullName !== '' && contact.company !== '',
    'name-and-domain': contact.fullName !== '' && contact.domain !== '',
    email: contact.email !== '',
  }
  return provider.accepts.find((set) => has[set]) ?? null
}

/** The most one asking can cost, line checks of its candidates included: reserved before the provider is asked. */
export function mostCost(provider: ProviderTerms, { checksLines }: { checksLines: boolean }): Micros {
  const own =
    provider.charge.per === 'candidate' ? provider.charge.amount * provider.mostCandidates : provider.charge.amount
  return own + (checksLines ? REGISTER.price * provider.mostCandidates : 0)
}

/** What the provider charges for one answer. */
export function costOfAnswer(
  provider: ProviderTerms,
  { candidates, accepted }: { candidates: number; accepted: boolean },
): Micros {
  const { per, amount } = provider.charge
  if (per === 'call') return amount
  return per === 'candidate' ? amount * Math.min(candidates, provider.mostCandidates) : accepted ? amount : 0
}

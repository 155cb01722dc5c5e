import type { ProviderTerms } from './providers'

/** What each service of a run charges, in millionths of a euro: as it was agreed to, and by its own word since. */
export type AgreedPrices = Readonly<Record<string, { readonly agreed: number; readonly told: number | null }>>

/** Services that charge more than was agreed to. */
export type NewPrices = Readonly<Record<string, { readonly agreed: number; readonly now: number }>>

export const pricesOf = (providers: readonly ProviderTerms[]): AgreedPrices =>
  Object.fromEntries(providers.map(({ id, charge }) => [id, { agreed: charge.amount, told: null }]))

/** A service as an answer of it says that it charges. */
export const atPrice = (provider: ProviderTerms, price: number | null): ProviderTerms =>
  price === null ? provider : { ...provider, charge: { ...provider.charge, amount: price } }

/** Services as they charge now: a dearer price that one has told counts, whatever its connector says. */
export const asTold = (providers: readonly ProviderTerms[], prices: AgreedPrices): readonly ProviderTerms[] =>
  providers.map((provider) => atPrice(provider, Math.max(provider.charge.amount, prices[provider.id]?.told ?? 0)))

/**
 * Which services charge more than was agreed to: by their connectors, or by what their answers say.
 * @param told prices that answers have told just now, each with its service
 */
export function dearerThanAgreed(
  { plan, prices }: { readonly plan: { readonly providers: readonly ProviderTerms[] }; readonly prices: AgreedPrices },
  told: readonly { readonly provider: string; readonly price: number }[] = [],
): NewPrices {
  const dearer = new Map<string, { agreed: number; now: number }>()
  const seen = [...plan.providers.map(({ id, charge }) => ({ provider: id, price: charge.amount })), ...told]
  for (const { provider, price } of seen) {
    const agreed = prices[provider]?.agreed
    if (agreed === undefined || price <= Math.max(agreed, dearer.get(provider)?.now ?? 0)) continue
    dearer.set(provider, { agreed, now: price })
  }
  return Object.fromEntries(dearer)
}

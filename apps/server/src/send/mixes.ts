import { type IdentifierKind, type IdentifierMix, mixKey } from '@upper-field/core/send'
import type { MixBySource } from '../db/schema'
import type { FoundBy } from './foundBy'

type Counts = Map<string, number>

/** Counts the identifiers of an edition: all of them together, and by the batch and the providers they came from. */
export interface MixCounter {
  add(
    kinds: ReadonlySet<IdentifierKind>,
    source: { readonly batchId: string; readonly foundBy: readonly FoundBy[] },
  ): void
  mix(): IdentifierMix
  bySource(): MixBySource
}

export function createMixCounter(known: {
  readonly mix: IdentifierMix
  readonly mixBySource: MixBySource
}): MixCounter {
  const all: Counts = new Map(Object.entries(known.mix))
  const sources = new Map(
    Object.entries(known.mixBySource).map(([source, { mix, without }]) => [
      source,
      { mix: new Map(Object.entries(mix)), without: without && new Map(Object.entries(without)) },
    ]),
  )
  const sourceOf = (name: string, hasWithout: boolean) => {
    const found = sources.get(name) ?? { mix: new Map<string, number>(), without: hasWithout ? new Map() : null }
    sources.set(name, found)
    return found
  }
  return {
    add: (kinds, { batchId, foundBy }) => {
      count(all, kinds)
      if (batchId !== '') count(sourceOf(`batch ${batchId}`, false).mix, kinds)
      for (const { provider, isAddress } of foundBy) {
        const source = sourceOf(`provider ${provider}`, true)
        count(source.mix, kinds)
        if (source.without) count(source.without, withoutFound(kinds, isAddress))
      }
    },
    mix: () => Object.fromEntries(all),
    bySource: () =>
      Object.fromEntries(
        [...sources].map(([name, { mix, without }]) => [
          name,
          { mix: Object.fromEntries(mix), without: without && Object.fromEntries(without) },
        ]),
      ),
  }
}

const ADDRESSES: ReadonlySet<IdentifierKind> = new Set(['personal-email', 'work-email'])
const NUMBERS: ReadonlySet<IdentifierKind> = new Set(['mobile', 'other-number'])

/** What would be left to match by had a provider not found this. */
const withoutFound = (kinds: ReadonlySet<IdentifierKind>, isAddress: boolean): ReadonlySet<IdentifierKind> =>
  new Set([...kinds].filter((kind) => !(isAddress ? ADDRESSES : NUMBERS).has(kind)))

const count = (counts: Counts, kinds: ReadonlySet<IdentifierKind>): void => {
  const key = mixKey(kinds)
  counts.set(key, (counts.get(key) ?? 0) + 1)
}

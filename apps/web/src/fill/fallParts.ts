import type { FillEstimate, FillResult } from '@upper-field/contract'

/** What is told of one provider in the waterfall: before a run whom it can be asked about, after it what it gave. */
export interface FallFigures {
  readonly id: string
  /** About how many it was asked, or can be. */
  readonly entered: number
  readonly askedLately: number
  /** What it gave in the latest run; null where it was not in that. */
  readonly result: FillResult['providers'][number] | null
}

/** Figures of each provider of an order, whole and end of the stream. */
export interface WaterfallFigures {
  readonly whole: number
  readonly falls: readonly FallFigures[]
  /** Without all of what is wanted at the end; null before a run. */
  readonly left: number | null
  /** About how many the last one was asked without a usable answer: what runs off below it. */
  readonly runsOff: number
}

export function waterfallFigures(
  order: readonly string[],
  estimate: FillEstimate | undefined,
  run: FillResult | undefined,
): WaterfallFigures {
  const falls = order.map((id) => {
    const known = estimate?.providers.find(({ provider }) => provider === id)
    const result = run?.providers.find(({ provider }) => provider === id) ?? null
    return {
      id,
      entered: result?.asked ?? known?.askable ?? 0,
      askedLately: known?.askedLately ?? 0,
      result,
    }
  })
  const last = falls.at(-1)
  return {
    whole: run?.contacts ?? estimate?.wanting ?? 0,
    falls,
    left: run ? run.contacts - run.found : null,
    runsOff: last ? last.entered - (last.result?.accepted ?? 0) : 0,
  }
}

/** A figure as a part of the whole, from 0 to 1. */
export const partOf = (n: number, whole: number): number => (whole === 0 ? 0 : Math.min(1, n / whole))

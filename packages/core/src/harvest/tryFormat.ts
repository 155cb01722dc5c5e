import { sayingOf } from './around'
import type { Finding } from './findNumbers'
import { isWrittenIn, type NumberFormat, type Written } from './formats'
import { harvestPage, TAKEN_FROM } from './harvest'
import type { Page } from './page'
import { runsIn } from './runs'

/** A page that was fetched, taken apart. */
export interface FetchedPage {
  readonly url: string
  readonly country: string | null
  readonly page: Page
}

/** What a format would change on a page. */
export interface Changed {
  readonly url: string
  readonly value: string
  readonly raw: string
  readonly quote: string
}

/** What a format would do on the pages that were fetched, before it is kept. */
export interface TriedFormat {
  readonly finds: readonly Changed[]
  readonly loses: readonly Changed[]
  /** Of what it finds: what stands behind a word for another thing, such as an article number. */
  readonly lookAlikes: readonly (Changed & { readonly word: string })[]
}

/** Holds a format against pages: what it would find beyond what is known, and what it would lose. */
export function tryFormat(
  pages: readonly FetchedPage[],
  known: readonly NumberFormat[],
  format: NumberFormat,
): TriedFormat {
  const finds: Changed[] = []
  const loses: Changed[] = []
  const lookAlikes: (Changed & { readonly word: string })[] = []
  for (const { url, country, page } of pages) {
    const options = { url, country }
    const before = takenOf(harvestPage(page, { ...options, formats: known }).findings)
    const after = takenOf(harvestPage(page, { ...options, formats: [...known, format] }).findings)
    for (const [value, one] of after) if (!before.has(value)) finds.push(changed(url, one))
    for (const [value, one] of before) if (!after.has(value)) loses.push(changed(url, one))
    if (!format.takes) continue
    const suspects = suspectsOn(page, country, format)
    for (const [value, one] of after) {
      const word = suspects.get(one.raw)
      if (!before.has(value) && word !== undefined) lookAlikes.push({ ...changed(url, one), word })
    }
  }
  return { finds, loses, lookAlikes }
}

const takenOf = (findings: readonly Finding[]): ReadonlyMap<string, Finding> =>
  new Map(
    findings.flatMap((one) =>
      one.kind === 'number' && one.confidence >= TAKEN_FROM ? [[one.value, one] as const] : [],
    ),
  )

const changed = (url: string, { value, raw, quote }: Finding): Changed => ({ url, value, raw, quote })

/** The last word of more than two letters. */
const LAST_WORD = /([\p{L}-]{3,})[^\p{L}]*(?:\p{L}{1,2}[^\p{L}]*)?$/u

/** What is written in a format behind a word for another thing, with that word. */
function suspectsOn(page: Page, country: string | null, format: NumberFormat): ReadonlyMap<string, string> {
  return new Map(
    page.blocks.flatMap(({ text }) =>
      runsIn(text).flatMap(({ raw, own }) => {
        if (sayingOf(own) !== 'other' || !isWrittenIn({ raw, before: own }, country, format)) return []
        return [[raw, LAST_WORD.exec(own)?.[1] ?? ''] as const]
      }),
    ),
  )
}

/** Where something was marked on a page: the text of its block, and what of it was marked. */
export interface Marked {
  readonly block: string
  readonly raw: string
}

/** The example a mark on a page is. Null where the text does not hold it, or it holds too few digits for a number. */
export function exampleOf({ block, raw }: Marked): Written | null {
  const at = block.indexOf(raw)
  const run = runsIn(block).find((one) => at >= 0 && one.at < at + raw.length && one.end > at)
  return run ? { raw: run.raw, before: run.own } : null
}

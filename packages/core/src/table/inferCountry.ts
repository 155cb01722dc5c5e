import { callingDigitsOf } from '../phone'
import { type CountryEvidence, evidenceIn } from './countryEvidence'
import type { EvidenceKind } from './countryLedger'
import { isBlankCell } from './grid'
import { headingLanguages } from './headingLanguages'

/** Which country a list is of, as far as the list tells. */
export interface CountryInference {
  /** ISO 3166-1 alpha-2; null where nothing tells, or where rows differ. */
  readonly suggested: string | null
  /** 0 to 1. */
  readonly confidence: number
  /** A sentence with what tells so. */
  readonly why: string
}

/** A column as far as the country is inferred from it. */
export interface InferredColumn {
  readonly heading: string
  readonly cells: readonly string[]
}

/** With less evidence than this a list tells nothing. */
const LEAST = 0.4
/** Chances are compared in powers of ten; from so many on nobody need be asked. */
const SURE = 0.8
/** What one country explains worse than this share of the numbers is not of one country. */
const MOST_EXPLAINED = 0.75

/**
 * Infers the country of a list from all there is: numbers with a code, the others under each country's plan, postal
 * codes, regions, towns, endings of domains, the language of the headings, currency signs. Each piece of evidence says
 * how much likelier it is in each country; what is likeliest by far is proposed, and nothing where rows differ.
 */
export function inferCountry(columns: readonly InferredColumn[]): CountryInference {
  const filled = columns.map(({ heading, cells }) => ({ heading, cells: cells.filter((cell) => !isBlankCell(cell)) }))
  const evidence = evidenceIn(filled, headingLanguages(columns.map(({ heading }) => heading)))
  if (evidence.rowsSay) return fromRows(evidence.rowsSay)
  const ranked = rank(evidence)
  const [best, second] = ranked
  if (!best || best.score < LEAST || !evidence.said.has(best.country))
    return { suggested: null, confidence: 0, why: 'Nothing in this file tells which country it is of.' }
  const confidence = shareOf(best.score, ranked)
  const differs = whereRowsDiffer(evidence, best.country)
  if (differs) return { suggested: null, confidence: round(Math.min(confidence, 0.5)), why: differs }
  if (confidence < SURE)
    return {
      suggested: null,
      confidence: round(confidence),
      why: `It may be ${nameOf(best.country)}${second ? ` or ${nameOf(second.country)}` : ''}: ${reasons(evidence, best.country)}.`,
    }
  return {
    suggested: best.country,
    confidence: round(Math.min(0.99, confidence)),
    why: `${nameOf(best.country)}: ${reasons(evidence, best.country)}.`,
  }
}

interface Ranked {
  readonly country: string
  readonly score: number
}

function rank({ scores }: CountryEvidence): Ranked[] {
  return [...scores].map(([country, score]) => ({ country, score })).sort((a, b) => b.score - a.score)
}

/** The share of all chances that one country has. */
function shareOf(score: number, ranked: readonly Ranked[]): number {
  return 1 / ranked.reduce((sum, one) => sum + 10 ** (one.score - score), 0)
}

/** A column of countries says it row by row. */
function fromRows(rowsSay: ReadonlyMap<string, number>): CountryInference {
  const all = [...rowsSay].sort((a, b) => b[1] - a[1])
  const total = all.reduce((sum, [, n]) => sum + n, 0)
  const [first = ['', 0]] = all
  if (all.length === 1)
    return { suggested: first[0], confidence: 0.99, why: `${nameOf(first[0])}: a column says so in every row.` }
  return {
    suggested: null,
    confidence: round(first[1] / total),
    why: `Each row says its own: ${all
      .slice(0, 3)
      .map(([country, n]) => `${nameOf(country)} ${n}`)
      .join(', ')}${all.length > 3 ? ` and ${all.length - 3} more` : ''}.`,
  }
}

/** The sentence where numbers are of several countries, and no column says which row is of which. */
function whereRowsDiffer({ national, coded, scores }: CountryEvidence, country: string): string | null {
  // A spreadsheet takes the zeros of a whole column: where some stand, none was taken.
  const isWhole = national.filter(({ validIn }) => validIn.has(country)).length < 2
  const unexplained = national.filter(
    ({ validIn, mendedIn }) => !validIn.has(country) && !(isWhole && mendedIn.has(country)),
  )
  if (national.length >= 3 && unexplained.length / national.length > 1 - MOST_EXPLAINED) {
    // Of those that explain as many, the likelier one is named.
    const [other] = countBy(unexplained.flatMap(({ validIn }) => [...validIn])).sort(
      (a, b) => b[1] - a[1] || (scores.get(b[0]) ?? 0) - (scores.get(a[0]) ?? 0),
    )
    if (other && other[1] >= 2 && other[1] / unexplained.length > 0.5)
      return `The rows differ: ${national.length - unexplained.length} numbers are valid in ${nameOf(country)}, ${other[1]} others only elsewhere, such as in ${nameOf(other[0])}.`
  }
  if (national.length === 0 && coded.length > 0) {
    const codes = countBy(coded)
    const [most] = countBy(coded.map(callingDigitsOf))
    if (most && most[1] / coded.length < MOST_EXPLAINED)
      return `The rows differ: their numbers have the codes of ${codes
        .slice(0, 3)
        .map(([one, n]) => `${nameOf(one)} (${n})`)
        .join(', ')}.`
  }
  return null
}

function countBy(items: readonly string[]): (readonly [string, number])[] {
  const counts = new Map<string, number>()
  for (const item of items) counts.set(item, (counts.get(item) ?? 0) + 1)
  return [...counts].sort((a, b) => b[1] - a[1])
}

const ORDER: readonly EvidenceKind[] = [
  'numbers',
  'codes',
  'postal',
  'regions',
  'towns',
  'domains',
  'language',
  'currency',
]

/** What speaks for a country, the weightiest kinds first. */
function reasons({ said }: CountryEvidence, country: string): string {
  const mine = said.get(country)
  const found = ORDER.flatMap((kind) => mine?.get(kind) ?? [])
  return found.length > 0 ? found.slice(0, 4).join(', ') : 'little tells'
}

const round = (n: number): number => Math.round(n * 100) / 100

let names: Intl.DisplayNames | null = null

export function nameOf(country: string): string {
  names ??= new Intl.DisplayNames(['en'], { type: 'region' })
  try {
    return names.of(country) ?? country
  } catch {
    return country
  }
}

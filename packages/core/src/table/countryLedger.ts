import { planCountries } from '../phone'

export type EvidenceKind = 'numbers' | 'codes' | 'postal' | 'regions' | 'towns' | 'domains' | 'language' | 'currency'

/** Cells of one kind that are looked at: a handful is enough, more only takes time. */
export const SAMPLE = 40

/** Where lists come from: elsewhere is a tenth as likely before anything is known. */
export const USUAL = new Set(
  'US GB DE FR ES IT NL BE AT CH IE PT DK SE NO FI PL CZ SK HU RO BG GR HR SI EE LT LV LU TR UA RU CA AU NZ ZA IN JP CN HK SG KR TH MY PH ID VN MX BR AR CL CO PE AE SA EG IL MA NG KE'.split(
    ' ',
  ),
)
export const UNUSUAL = -1.2
/** Many lists are of these: what they share with a small country is likelier theirs. */
const FREQUENT = new Set('US GB DE FR ES IT NL IN BR'.split(' '))
const OFTEN = 0.5
/** How much likelier a list is of each country, in powers of ten, and what speaks for it. */
export class Ledger {
  readonly scores = new Map<string, number>()
  readonly said = new Map<string, Map<EvidenceKind, string>>()
  constructor() {
    for (const country of planCountries())
      this.scores.set(country, FREQUENT.has(country) ? OFTEN : USUAL.has(country) ? 0 : UNUSUAL)
  }
  add(country: string, points: number): void {
    this.scores.set(country, (this.scores.get(country) ?? UNUSUAL) + points)
  }
  say(country: string, kind: EvidenceKind, words: string): void {
    const mine = this.said.get(country) ?? new Map<EvidenceKind, string>()
    mine.set(kind, words)
    this.said.set(country, mine)
  }
}

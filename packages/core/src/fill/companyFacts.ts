/** What an answer tells of a company. */
export interface CompanyFacts {
  readonly site: string
  readonly page: string
  readonly industry: string
  readonly headcount: number | null
}

/** An item of an answer, as far as companies are concerned. */
export interface CompanyItem {
  readonly name?: string | number | boolean | undefined
  readonly site?: string | number | boolean | undefined
  readonly page?: string | number | boolean | undefined
  readonly industry?: string | number | boolean | undefined
  readonly headcount?: string | number | boolean | undefined
}

const LONGEST = 500
const MOST_PEOPLE = 10_000_000

/**
 * What the items of an answer tell of the company together, the first word on each; null where they tell nothing.
 * @param isOther true for a name that is not the contact's: of somebody else's company nothing is kept
 */
export function companyFactsIn(items: readonly CompanyItem[], isOther: (name: string) => boolean): CompanyFacts | null {
  const mine = items.filter(({ name }) => name === undefined || name === '' || !isOther(String(name)))
  const first = (field: 'site' | 'page' | 'industry'): string => {
    for (const item of mine) {
      const text = String(item[field] ?? '').trim()
      if (text !== '') return text.slice(0, LONGEST)
    }
    return ''
  }
  const counts = mine.flatMap(({ headcount }) => (headcount === undefined ? [] : Number(headcount)))
  const headcount = counts.find((n) => Number.isInteger(n) && n > 0 && n <= MOST_PEOPLE) ?? null
  const facts = { site: first('site'), page: first('page'), industry: first('industry'), headcount }
  return facts.site === '' && facts.page === '' && facts.industry === '' && headcount === null ? null : facts
}

import { fold } from '@upper-field/core/table'
import type { ContactView } from './viewOf'

const LONGEST_EXTRA = 80
const MOST_EXTRAS = 600

/** Text that the free search looks in: name, company, street, birth date, e-mails, numbers, and the cells kept as extras. */
export function searchText({ values, numbers, emails, extras, more }: ContactView): string {
  const parts = [
    values.fullName,
    values.company,
    values.street,
    values.birthDate,
    more['@industry'] ?? '',
    ...emails.map(({ address }) => address),
    ...numbers.map(({ e164 }) => e164),
    extras
      .map((cell) => cell.slice(0, LONGEST_EXTRA))
      .join(' ')
      .slice(0, MOST_EXTRAS),
  ]
  return fold(
    parts
      .filter(Boolean)
      .map((part) => part.slice(0, MOST_EXTRAS))
      .join(' '),
  )
}

/**
 * What each typed word must match. Words of digits that stand side by side are one number, as it is dialled at home
 * or from abroad: `07911 204481`, `+44 (0)7911 204 481` and `7911204481` find the same contact.
 */
export function searchTerms(words: string): string[] {
  const terms: string[] = []
  let digits = ''
  const end = () => {
    if (digits !== '') terms.push(digits.replace(/^0+(?=\d{3})/, ''))
    digits = ''
  }
  for (const word of fold(words).split(/\s+/).filter(Boolean)) {
    if (/^[+\d()./-]*\d[\d()./-]*$/.test(word)) digits += word.replace(/\(0\)/g, '').replace(/\D/g, '')
    else {
      end()
      terms.push(word)
    }
  }
  end()
  return terms
}

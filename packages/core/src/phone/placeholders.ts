/**
 * Numbers people type when they do not want to give one, and ranges set aside for fiction and testing.
 * Sources: the drama ranges of the British regulator, the North American plan's 555-0100 to 555-0199 and
 * directory assistance 555-1212, the Australian regulator's numbers for creative works, and the ranges the
 * German and French regulators keep for film.
 */
const FICTION: ReadonlyMap<number, RegExp> = new Map([
  [
    44,
    /^(?:7700900|2079460|1134960|1144960|1154960|1164960|1174960|1184960|1214960|1314960|1414960|1514960|1614960|1914980|1632960|2896496|2920180|8081570|9098790)/,
  ],
  [1, /^\d{3}555(?:01\d\d|1212)$/],
  [61, /^(?:(?:2|3|7|8)(?:5550|7010)\d{4}|491570\d{3})$/],
  [49, /^(?:3023125|4066969|6990009|8999998|2214710)\d{3}$/],
  [33, /^(?:(?:19900|26191|35301|46571|53649)\d{4}|63998\d{4})$/],
])

/** True for a number that is set aside for fiction. */
export const isFictionNumber = (countryCode: number, national: string): boolean =>
  FICTION.get(countryCode)?.test(national) ?? false

const RISING = '01234567890123456789'
const FALLING = '98765432109876543210'

/** True for digits nobody was given: one digit repeated, or a run up or down the keyboard. At least 5 digits. */
export function isPlaceholderRun(digits: string): boolean {
  if (digits.length < 5) return false
  // Most digits part ways at once: the second step already differs from the first.
  const step = digits.charCodeAt(1) - digits.charCodeAt(0)
  if ((digits.charCodeAt(2) - digits.charCodeAt(1) - step) % 10 !== 0) return false
  return /^(\d)\1+$/.test(digits) || RISING.includes(digits) || FALLING.includes(digits)
}

/** `555-0123` without an area code, in a country of the North American plan. */
export const isLocalFiction = (digits: string, country: string | null): boolean =>
  (country === 'US' || country === 'CA') && /^555(?:01\d\d|1212)$/.test(digits)

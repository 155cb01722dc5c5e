import { fold } from '../table'

/** Why something that looks like a number to call was left out. */
export const LEFT_OUT_WHY = [
  'fax',
  'tax',
  'account',
  'order',
  'coordinates',
  'date',
  'hours',
  'amount',
  'taught',
  'other',
] as const
export type LeftOutWhy = (typeof LEFT_OUT_WHY)[number]

export interface LeftOutThing {
  readonly raw: string
  readonly why: LeftOutWhy
}

/** Words before it, folded, by what they say it is. */
const SAID: readonly (readonly [RegExp, LeftOutWhy])[] = [
  [/fax|faks/, 'fax'],
  [/\b(?:vat|ust|uid|tva|siret|siren|iva|btw|nif|cif|kvk|steuer|tax)/, 'tax'],
  [/\b(?:iban|bic|swift|konto|account|blz|sort|bank)/, 'account'],
  [/order|bestell|auftrag|commande|pedido|ordine|rechnung|invoice|artik|article|ref|kunden/, 'order'],
  [/\b(?:lat|lon|lng|gps|koord|coord)/, 'coordinates'],
]
/** The shape of it, where no word tells. */
const SHAPED: readonly (readonly [RegExp, LeftOutWhy])[] = [
  [/^\d{1,2}[.:]\d\d\s*[-–—]/, 'hours'],
  [/^\d{1,2}\.\d{4,}$/, 'coordinates'],
  [/^(?:\d{1,2}[./-]\d{1,2}|\d{4}[./-]\d{1,2}|(?:19|20)\d\d\s*[-–—/])/, 'date'],
  [/^\d{1,3}(?:[.,]\d{3})+/, 'amount'],
]

/** What a run of digits is, by the words before it, by its own shape, by what stands behind it. */
export function whyLeftOut(raw: string, before: string, behind: string): LeftOutWhy {
  const near = fold(before.slice(-40))
  const said = SAID.find(([words]) => words.test(near))?.[1]
  const shaped = SHAPED.find(([shape]) => shape.test(raw.trim()))?.[1]
  if (shaped === 'hours' || shaped === 'date') return shaped
  if (said) return said
  if (/^\s*(?:€|\$|£|eur|chf|gbp|usd)/i.test(behind)) return 'amount'
  return shaped ?? 'other'
}

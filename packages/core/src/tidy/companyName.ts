import { remember } from '../remember'
import { CJK_BEFORE, CJK_BEHIND, FORM_BEFORE, FORM_BEHIND } from './legalForms'
import { behindMc } from './nameCase'

/** Letters that a legal form can end in: a name that ends in another needs no closer look. */
const CAN_END = /[.)dcpgvkrbfsuylaehoitenjmşéüανεικ會社会업司디дов㈱）]$/iu
const FIRST_OF_BEFORE = /^[株有合（(㈱㈲주офзопитutpcsefgk]/iu
const FORMS_AT_MOST = 3

interface Taken {
  readonly name: string
  readonly form: string
}

/**
 * A company's name and its legal forms, which stay known for matching: behind it or before it, and several in a row.
 * At least two letters are left.
 */
export const takeLegalForm: (company: string) => Taken = remember(take)

function take(company: string): Taken {
  let name = company
  const forms: string[] = []
  for (let i = 0; i < FORMS_AT_MOST; i++) {
    const taken = formBehind(name) ?? formBefore(name)
    if (taken === null || lettersOf(taken.name) < 2) break
    forms.push(taken.form)
    name = taken.name
  }
  return forms.length === 0 ? { name: company, form: '' } : { name: unquoted(name), form: forms.join(', ') }
}

const lettersOf = (text: string): number => text.replace(/[^\p{L}]/gu, '').length

/** Quotes round all that is left belonged to the name as it stood beside its form. */
const unquoted = (name: string): string => /^[«"„“]([^«»"„“”]+)[»"“”]$/u.exec(name)?.[1] ?? name

function formBehind(company: string): Taken | null {
  if (!CAN_END.test(company)) return null
  const cjk = CJK_BEHIND.exec(company)
  if (cjk?.[1] && cjk[2]) return { name: cjk[1], form: cjk[2] }
  if (!company.includes(' ')) return null
  const last = company.slice(company.lastIndexOf(' ') + 1)
  // A form is short, or a word of its own.
  if (last.replace(/\./g, '').length > 7 && !LONG.test(last)) return null
  const match = FORM_BEHIND.exec(company)
  if (!match?.[1] || !match[2]) return null
  return { name: match[1].replace(/\s*[,&]$/, ''), form: match[2] }
}

const LONG =
  /^(?:limited|incorporated|corporation|genossenschaft|\(haftungsbeschränkt\)|company|partnership|designated|teoranta|kaisha|limitada|anónima|unipessoal)$/iu

function formBefore(company: string): Taken | null {
  if (!FIRST_OF_BEFORE.test(company)) return null
  const cjk = CJK_BEFORE.exec(company)
  if (cjk?.[1] && cjk[2]) return { name: cjk[2], form: cjk[1] }
  const match = FORM_BEFORE.exec(company)
  if (!match?.[1] || !match[2]) return null
  // Short ones are words too, unless they are written as forms are.
  const isWritten = match[1].length > 4 || match[1] === match[1].toUpperCase() || match[1].endsWith('.')
  return isWritten || /^firma$/i.test(match[1]) ? { name: match[2], form: match[1] } : null
}

const SMALL = new Set('of and the for am im in an der die das und de la le les du des et di e del y van'.split(' '))

/** A company written all in capitals, or all in small letters, with the capitals it should have. */
export const mendCompanyCase: (company: string) => string = remember(mendCase)

function mendCase(company: string): string {
  const isUpper = company === company.toUpperCase()
  if ((!isUpper && company !== company.toLowerCase()) || company.toUpperCase() === company.toLowerCase()) return company
  const words = company.split(' ')
  // One short word in capitals is an abbreviation.
  if (isUpper && words.every((word) => word.length <= 4)) return company
  return words.map((word, i) => wordCase(word, i, isUpper)).join(' ')
}

function wordCase(word: string, i: number, isUpper: boolean): string {
  const lower = word.toLowerCase()
  if (i > 0 && SMALL.has(lower)) return lower
  // Letters without a vowel between them are an abbreviation, as are two or three in capitals that are no word.
  if (isUpper && /^[^aeiouyäöüéèà\d]{2,5}$/i.test(word)) return word
  // A capital stands behind the apostrophe of a surname or an article, and none behind that of a genitive.
  const capital = lower.replace(
    /((?:^|[-/&.(])[dlo]['’]|^|[-/&.(])(\p{L})/gu,
    (_, before: string, letter: string) => before.toUpperCase() + letter.toUpperCase(),
  )
  return behindMc(capital)
}

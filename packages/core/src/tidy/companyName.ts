/** Legal forms of the countries lists come from most, at the end of a name. Longer ones first. */
const FORMS = [
  'gmbh & co\\.? kg(?:aa)?',
  'gmbh & co\\.? ohg',
  'ag & co\\.? kg(?:aa)?',
  'ug \\(haftungsbeschränkt\\)',
  'ug',
  'ggmbh',
  'gmbh',
  'mbh',
  'ohg',
  'kgaa',
  'kg',
  'ag',
  'se',
  'gbr',
  'e\\.? ?k\\.?',
  'e\\.? ?v\\.?',
  'e\\.? ?u\\.?',
  'eingetragene genossenschaft',
  'e\\.? ?g\\.?',
  'private limited',
  'pvt\\.? ltd\\.?',
  'pty\\.? ltd\\.?',
  'pte\\.? ltd\\.?',
  'co\\.?,? ltd\\.?',
  'limited',
  'ltd\\.?',
  'l\\.?l\\.?c\\.?',
  'l\\.?l\\.?p\\.?',
  'p\\.?l\\.?c\\.?',
  'incorporated',
  'inc\\.?',
  'corporation',
  'corp\\.?',
  's\\.?a\\.?r\\.?l\\.?',
  's\\.?a\\.?s\\.?u?\\.?',
  'eurl',
  'sci',
  's\\.?n\\.?c\\.?',
  's\\.?r\\.?l\\.?s?',
  's\\.?p\\.?a\\.?',
  's\\.?l\\.?u?\\.?',
  's\\.?a\\.?',
  'b\\.?v\\.?b?\\.?a?\\.?',
  'n\\.?v\\.?',
  'v\\.?o\\.?f\\.?',
  'a/s',
  'aps',
  'ab',
  'as',
  'oyj?',
  'sp\\. ?z ?o\\. ?o\\.?',
  's\\.r\\.o\\.',
  'a\\.s\\.',
  'kft\\.?',
  'lda\\.?',
].join('|')
const LEGAL_FORM = new RegExp(`^(.*[\\p{L}\\p{N})!]),? +((?:${FORMS}))$`, 'iu')
/** Letters that a legal form can end in: a name that ends in another needs no closer look. */
const CAN_END = /[.)dcpgvkrbfsuylaehoiten]$/i

/** A company's name and its legal form, which stays known for matching. At least two letters are left. */
export function takeLegalForm(company: string): { readonly name: string; readonly form: string } {
  if (!CAN_END.test(company) || !company.includes(' ')) return { name: company, form: '' }
  const last = company.slice(company.lastIndexOf(' ') + 1)
  // A form is short, or a word of its own.
  if (
    last.replace(/\./g, '').length > 5 &&
    !/^(?:limited|incorporated|corporation|genossenschaft|\(haftungsbeschränkt\))$/i.test(last)
  )
    return { name: company, form: '' }
  const match = LEGAL_FORM.exec(company)
  if (!match?.[1] || !match[2] || match[1].replace(/[^\p{L}]/gu, '').length < 2) return { name: company, form: '' }
  return { name: match[1].replace(/\s*[,&]$/, ''), form: match[2] }
}

const SMALL = new Set('of and the for am im in an der die das und de la le les du des et di e del y van'.split(' '))

/** A company written all in capitals, or all in small letters, with the capitals it should have. */
export function mendCompanyCase(company: string): string {
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
  return lower.replace(/(^|[-/&.(])(\p{L})/gu, (_, before: string, letter: string) => before + letter.toUpperCase())
}

import { digitsOf } from './characters'

/** Words before an extension, in the languages lists come in: lower case, without the dot of an abbreviation. */
const WORDS = new Set(
  `extension extensión extensao extensão extension extn ext exten xtn xt x durchwahl dw klappe kl nebenstelle nst apparat app
   poste interno int estensione anexo anx interior ramal rml toestel tst anknytning ankn anslutning lokal lok lokalnummer
   linnr linje wewnętrzny wewn wew w linka kl klapka mellék mellek alaknumero alanro dahili dah
   добавочный доб внутренний вн внутр εσωτερικό εσωτ εσ 内線 分机 内線番号 내선 تحويلة שלוחה sambungan ekst`.split(
    /\s+/,
  ),
)

/** Letters that a phone book keeps between a number and what is dialled after it: a pause, a wait. */
const PAUSES = new Set(['p', 'w'])

/** Words that may stand between the word for an extension and its digits. */
const BETWEEN = new Set(['no', 'nr', 'num', 'number', 'nummer', 'nº', 'n', 'numéro', 'numero'])

/** True for a word that an extension follows. `isGlued`: its digits stand right behind it. */
export function isExtensionWord(word: string, isGlued: boolean): boolean {
  const plain = word.toLowerCase().replace(/\.$/, '')
  return PAUSES.has(plain) ? isGlued : WORDS.has(plain)
}

export const standsBeforeExtension = (word: string): boolean => BETWEEN.has(word.toLowerCase().replace(/\.$/, ''))

/** Most digits an extension has. */
export const LONGEST_EXTENSION = 7

const MARKED = /\s*(?:;ext=|#|,{2,})\s*(\d{1,7})#?$/i
/** A mark that also stands between groups of one number. */
const LOOSELY_MARKED = /;\s*(\d{1,7})#?$/

/**
 * The number and the extension behind a mark: `#12`, `,,12`. At least five digits must stand before it.
 * @param isWhole all its digits are a number together
 */
export function takeOffMarkedExtension(
  text: string,
  isWhole: (digits: string) => boolean,
): { readonly text: string; readonly extension: string | null } {
  const match = MARKED.exec(text) ?? (isWhole(text) ? null : LOOSELY_MARKED.exec(text))
  const before = match ? text.slice(0, match.index) : text
  if (!match?.[1] || digitsOf(before).length < 5) return { text, extension: null }
  return { text: before, extension: match[1] }
}

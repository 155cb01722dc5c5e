/** Cells that mean "nothing here", in the languages lists come in. Compared in lower case without dots. */
const EMPTY_WORDS = new Set(
  `na n/a n-a none nil null unknown no nope missing blank tbd tba tbc undefined nan - -- --- _ ? ?? . .. / x xx 0 #n/a #na
   unlisted withheld void pending keine kein unbekannt entfällt k/a ka aucun aucune inconnu néant nc s/o ninguno ninguna
   desconocido nd n/d nessuno nessuna sconosciuto geen onbekend nvt ingen okänd ukendt brak nieznany`.split(/\s+/),
)
const EMPTY_PHRASES = new Set(
  `not known|not available|not provided|not given|not applicable|not listed|no phone|no telephone|no number|no mobile
   |no cell|keine angabe|keine nummer|kein telefon|nicht bekannt|nicht vorhanden|ohne|ex-directory|ex directory
   |sans objet|non communiqué|non disponible|pas de téléphone|sin teléfono|no disponible|geen nummer|geen telefoon
   |nessun numero|sem telefone|brak numeru`
    .split('|')
    .map((phrase) => phrase.trim()),
)

/** Of the words, only 0 and its like in brackets hold a digit. */
const LONGEST_WORD_WITH_DIGIT = 6

/** True where the cell says that there is no number. A country code is never put before such a cell. */
export function isEmptyCell(text: string): boolean {
  const word = text.trim().toLowerCase()
  if (word === '') return true
  if (word.length > LONGEST_WORD_WITH_DIGIT && /\d/.test(word)) return false
  if (!/\d/.test(word) && !/[\p{L}]/u.test(word) && !word.includes('*')) return true
  const bare = word.replace(/^[("'[]+|[)"'\].!]+$/g, '').replace(/\./g, '')
  return EMPTY_WORDS.has(bare) || EMPTY_PHRASES.has(bare)
}

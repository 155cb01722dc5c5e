import type { NumberLabel } from './types'

/** Cells that mean "nothing here", in the languages lists come in. Compared in lower case without dots. */
const EMPTY_WORDS = new Set(
  `na n/a n-a none nil null unknown no nope missing blank tbd tba tbc undefined nan - -- --- _ ? ?? . .. / x xx 0 #n/a #na
   keine kein unbekannt entfällt k/a ka aucun aucune inconnu néant nc s/o ninguno ninguna desconocido nd n/d
   nessuno nessuna sconosciuto geen onbekend nvt ingen okänd ukendt brak nieznany not known not available no phone
   no number not provided not given keine angabe`.split(/\s+/),
)
const EMPTY_PHRASES = new Set([
  'not known',
  'not available',
  'not provided',
  'not given',
  'not applicable',
  'no phone',
  'no number',
  'keine angabe',
  'ohne',
  'ex-directory',
  'sans objet',
  'non communiqué',
  'sin teléfono',
  'geen nummer',
]) // prettier-ignore

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

const LABEL_WORDS: Record<NumberLabel, string> = {
  mobile:
    'mobile|mobil|mob|cellulare|cellular|cell|cel|handynummer|handy|portable|port|gsm|móvil|movil|telefonino|mobiel|komórka|celular|m[.:]',
  work: 'office|work|business|büro|buero|geschäftlich|geschäft|dienstlich|bureau|pro|oficina|trabajo|ufficio|kantoor|werk|direct|desk|durchwahl|zentrale|[dwo][.:]',
  home: 'home|privat|private|priv|domicile|casa|thuis|evening|day|h[.:]',
  fax: 'telefax|fax|télécopie|f[.:]',
  main: 'switchboard|reception|main|standard|centralita|centrale',
  other:
    'telephone|telefono|teléfono|telefon|téléphone|telefoon|phone|fon|tel|tél|tlf|ph|nr|no|number|neu|new|alt|old|sms|text|call|fixe|fijo|festnetz|landline|contact|[tp][.:]',
}
const LEADING = byLabel(
  (words) => new RegExp(`^\\W*(?:${words})\\.?\\s*(?:(?:nr|no|number)\\.?\\s*)?[:.=-]?\\s*(?=[+(\\dOl])`, 'iu'),
)
const TRAILING = byLabel(
  (words) => new RegExp(`\\s*(?:[([-]\\s*(?:${words})\\.?\\s*[)\\]]?|(?<=[\\d)])\\s+(?:${words})\\.?)\\s*$`, 'iu'),
)

function byLabel(build: (words: string) => RegExp): (readonly [NumberLabel, RegExp])[] {
  return Object.entries(LABEL_WORDS).map(([label, words]) => [label as NumberLabel, build(words)] as const)
}

/** A number with the word before or behind it taken off, and what the word says about the line. */
export function takeOffLabel(text: string): { readonly text: string; readonly label: NumberLabel | null } {
  if (!/\p{L}/u.test(text)) return { text, label: null }
  for (const patterns of [LEADING, TRAILING]) {
    for (const [label, pattern] of patterns) {
      const bare = text.replace(pattern, '')
      if (bare === text || !/\d/.test(bare)) continue
      const again = takeOffLabel(bare)
      return { text: again.text, label: label === 'other' ? (again.label ?? label) : label }
    }
  }
  return { text, label: null }
}

const EXTENSION_WORDS =
  'extension|extn|ext|xtn|x|durchwahl|dw|klappe|kl|nebenstelle|poste|interno|int|anexo|anx|ramal|toestel|tst|anknytning|ankn|wew|доб|вн'
const EXTENSION = new RegExp(`(?:;ext=|[\\s,;(]*(?:(?:${EXTENSION_WORDS})\\.?:?|#)\\s*)(\\d{1,7})\\)?\\s*$`, 'iu')

/** The number and the extension that was written behind it. At least five digits must stand before it. */
export function takeOffExtension(text: string): { readonly text: string; readonly extension: string | null } {
  if (!/[\p{L}#]/u.test(text)) return { text, extension: null }
  const match = EXTENSION.exec(text)
  if (!match?.[1]) return { text, extension: null }
  const bare = text.slice(0, match.index)
  if (bare.replace(/\D/g, '').length < 5) return { text, extension: null }
  return { text: bare, extension: match[1] }
}

import type { NumberLabel } from './types'

/** Words beside a number that say whose line it is, as lists of twenty languages have them; lower case, no dots. */
const WORDS: Readonly<Record<NumberLabel, string>> = {
  mobile: `mobile mobil mob cellulare cellular cell cel cellphone handynummer handy hdy portable port gsm móvil movil
    telefonino mobiel mobilní mobilnummer mobiltelefon mobilfunk komórka komórkowy kom celular telemóvel telemovel tlm
    matkapuhelin kännykkä cep mobilni мобильный моб мобільний сот κινητό κιν 携帯 手机 휴대폰 جوال נייד hp`,
  work: `office work business biz büro buero geschäftlich geschäft gesch dienstlich dienst bureau pro oficina trabajo
    trabalho escritório ufficio lavoro kantoor werk direct desk durchwahl zentrale arbete arbeid arbejde kontor työ
    praca służbowy práce munkahely iş ofis serviciu birou рабочий раб роб офис γραφείο εργασία 会社 办公 kantor`,
  home: `home privat private priv domicile casa thuis privé prive hjem hem koti dom domowy
    domů otthon ev acasă домашний дом σπίτι 自宅 住宅 rumah`,
  fax: 'telefax fax télécopie telecopie fx faks faksi факс φαξ 传真 ファックス',
  main: 'switchboard reception main standard centralita centrale centralino växel växeln vaihde ústředna centrala hq',
  other: `telephone telefono teléfono telefon telefone téléphone telefoon phone fon fone tel tél tlf telf teléf ph pho
    nr no num numéro numero nummer number fixe fijo fisso fixo fixed festnetz vast fasttelefon
    landline line kontakt rufnummer telnr telno puhelin puh телефон тел τηλέφωνο τηλ 電話 电话 전화 هاتف טלפון`,
}

/** Single letters that stand for a label where a mark or a digit is right behind them. */
const LETTERS: Readonly<Record<string, NumberLabel>> = {
  m: 'mobile',
  c: 'mobile',
  w: 'work',
  d: 'work',
  o: 'work',
  h: 'home',
  f: 'fax',
  t: 'other',
  p: 'other',
}

const labels = new Map<string, NumberLabel>(
  Object.entries(WORDS).flatMap(([label, words]) => words.split(/\s+/).map((word) => [word, label as NumberLabel])),
)

/**
 * What a word beside a number says about its line; null for any other word.
 * @param behind what stands right behind it: a single letter is a label only before a mark
 */
export function labelOf(word: string, behind: string): NumberLabel | null {
  const plain = word.toLowerCase().replace(/\.$/, '')
  const known = labels.get(plain)
  if (known !== undefined) return known
  // A letter O right before digits is one of them.
  const isMarked = word.endsWith('.') || /^[.:)\]=]/.test(behind) || (plain !== 'o' && /^[+\d]/.test(behind))
  return isMarked ? (LETTERS[plain] ?? null) : null
}

/** The label that says more: a line has at most one kind, "number" and the like say none. */
export const clearerLabel = (one: NumberLabel | null, other: NumberLabel | null): NumberLabel | null =>
  one === null || one === 'other' ? (other ?? one) : one

const WORD = /[\p{L}\p{M}]+\.?/gu

/** What the words of a text say together; null where it has none, or one that is no label. */
export function labelOfWords(text: string): NumberLabel | null {
  let label: NumberLabel | null = null
  for (const match of text.matchAll(WORD)) {
    const found = labelOf(match[0], text.slice(match.index + match[0].length))
    if (found === null) return null
    label = clearerLabel(label, found)
  }
  return label
}

const WORD_IN_FRONT = /^[^\p{L}\d+(]*([\p{L}\p{M}]+\.?)(?=[\s.:=(-]|[+\d])[\s.:=-]*/u
const WORD_BEHIND = /(?<=[\d)\s])[\s([-]*([\p{L}\p{M}]+\.?)[)\]]?\s*$/u

/** A text without the labels before and behind it. */
export function withoutLabels(text: string): string {
  const front = WORD_IN_FRONT.exec(text)
  if (front?.[1] && labelOf(front[1], text.slice(front[0].trimEnd().length - 1)) !== null)
    return withoutLabels(text.slice(front[0].length))
  const back = WORD_BEHIND.exec(text)
  return back?.[1] && labelOf(back[1], '') !== null ? withoutLabels(text.slice(0, back.index)) : text
}

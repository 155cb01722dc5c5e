/**
 * Forms of address before a name, by how surely they are one: those that stand with or without a full stop, and those
 * that are given names or words too, and count with one only.
 */
const PLAIN = `mr mrs ms miss mx messrs dr prof professor sir dame lord lady rev reverend
   herr herrn frau fräulein hr fr mag mgr ing drs ir mme mlle mmes madame monsieur mademoiselle maître
   sr sra srta sres señor señora señorita dña sig signor signora signorina dott dottore dottoressa avv rag geom
   dhr mevr mevrouw meneer mw fru frk herra rouva pan pani paní pán pán\\.? dra doutor doutora senhor senhora
   mudr mvdr judr rndr phdr paeddr thdr thlic bc inż dr\\s+hab hab bay bayan sayın doç
   г-н г-жа господин госпожа проф д-р κος κα κύριος κυρία datuk dato haji sheikh rabbi`.split(/\s+/)
const DOTTED =
  'eng arq lic av adv capt col gen maj lt sgt hon supt st\\.?insp univ kand cand dipl h\\.c med phil rer\\.?nat iur jur oec'.split(
    ' ',
  )
/** Two people of one name. */
const COUPLE = `(?:mr|dr|prof|herr|monsieur|m|sr|sig|dhr|hr|pan)\\.? ?(?:&|\\+|and|und|et|y|e|en|og|och|a) ?(?:mrs|ms|miss|dr|frau|fr|mme|madame|sra|sig\\.?ra|mevr|fru|pani|paní)`
const JOINED = [
  COUPLE,
  'sig\\.?ra',
  'sig\\.?na',
  'dott\\.?ssa',
  'prof\\.?ssa',
  'univ\\.?-prof',
  'ao\\.? ?univ\\.?-prof',
  'dr\\.?-ing',
  'dipl\\.?-[a-zäöü]{2,8}',
  'd(?:r|ott)\\.? ?(?:med|phil|iur|jur|rer\\. ?nat|rer\\. ?pol|oec|h\\. ?c)\\.(?: ?dent\\.| ?vet\\.| ?univ\\.)?',
  'priv\\.?-doz',
  'tan sri',
  'right hon',
]
const TITLES = new RegExp(
  `^(?:(?:${[...JOINED, ...PLAIN].join('|')})\\.?|(?:${DOTTED.join('|')})\\.)(?:\\s+|(?<=\\.)(?=\\p{Lu}))(?=\\S)`,
  'iu',
)
/** What they begin with, in both cases. */
const FIRST_LETTERS = 'mdpslrhfiegjvabtucknowкгпдκ'
const LETTERS = new Set(FIRST_LETTERS + FIRST_LETTERS.toUpperCase())

/** Ways to address somebody that Chinese, Japanese and Korean put behind the name. */
const BEHIND = /(?<=[\p{sc=Han}\p{sc=Hira}\p{sc=Kana}\p{sc=Hang}])\s*(様|さま|さん|殿|先生|女士|小姐|님|씨)$/u

/** The title before a name, with the space behind it; null where there is none. */
export const titleBefore = (name: string): string | null =>
  LETTERS.has(name[0] ?? ' ') ? (TITLES.exec(name)?.[0] ?? null) : null

/** The title behind a name; null where there is none, or nothing but it. */
export function titleBehind(name: string): string | null {
  // Nothing of the Latin, Greek or Cyrillic alphabet has one.
  if ((name.codePointAt(name.length - 1) ?? 0) < 0x3000) return null
  const found = BEHIND.exec(name)
  return found && found.index > 0 ? (found[1] ?? null) : null
}

import { fold } from '../table'

const words = (text: string): readonly string[] => text.split(/\s+/).filter(Boolean)

/** Words before a number that say that it is a telephone, folded, in the languages of most pages. */
const PHONE_WORDS: ReadonlySet<string> = new Set(
  words(`tel tel. telephone telefon telefono telefone telefoon telf tlf tlf. phone phones ph fon fone call ring mobile mobil mob handy cell
    cellulare movil movel mobiel gsm portable hotline rufnummer festnetz fixe fijo fisso landline buchung booking reservation
    reservations reservierung reservierungen reservas prenotazioni reception rezeption accueil recepcion anrufen appelez llame chiamaci bel
    puhelin telefonnummer telefonnr phonenumber contact kontakt telephoneno`),
)
/** Words that say that it is not: other numbers look alike. Fax lines are no lines to call. */
const OTHER_WORDS: ReadonlySet<string> = new Set(
  words(`fax telefax faks faxnummer orders bestellnummer bestellnr auftragsnummer rechnungsnummer invoice facture artikelnummer art-nr sku
    isbn issn ean gtin vat ust-idnr ust-id ustid umsatzsteuer steuernummer steuernr st-nr tva siret siren nif cif partita btw kvk hrb hra
    handelsregister registernummer firmenbuchnummer abn ein iban bic swift kontonummer kontonr blz sortcode kundennummer seriennummer
    lat latitude lon lng longitude gps coordinates koordinaten coordonnees coordenadas coordinate postcode plz zip since seit depuis
    copyright tracking`),
)
/** Words that say so only right before the number, or before a word for number: `customer service` is a line to call. */
const OTHER_OF: ReadonlySet<string> = new Set(
  words(`order auftrag rechnung commande pedido ordine bestelling ref reference referenz artikel article item uid company registration
    registered konto bank account sort rekening customer kunde client version serial licence license lizenz patent position code pin date
    datum build id parcel charity policy case akte tax steuer`),
)
const NUMBER_WORDS: ReadonlySet<string> = new Set(words('no nr n number numbers nummer numero num id code ref nº n° #'))
/** So many words before a number say what it is. */
const NEAR = 5
/** One letter, or a sign, stands for the word. */
const SIGN = /(?:[☎☏✆📞📱]|(?:^|[\s|·,;(])(?:t|m|p|ph|mob|tf)\s*[.:])\s*$/iu
const FAX_SIGN = /(?:[📠]|(?:^|[\s|·,;(])f\s*[.:])\s*$/iu
/** One line for both. */
const WITH_FAX =
  /(?:tel|phone|telefon|telefono|telephone|fon)[\p{L}]*\.?(?:\s*[/&+,-]\s*|\s+(?:und|and|et|y|e|en|u\.)\s+)(?:tele)?fax[\p{L}]*\.?\s*:?\s*$/iu
/** A word for the number of something: of what stands in front of it. */
const NUMBER_OF = /.(?:-?nr|-no|nummer|number|numero)$/
const OF_PHONE = /tel|fon|phone|ruf|handy|mobil|durchwahl|festnetz|hotline|kontakt|contact|service/

export type Around = 'telephone' | 'other' | 'nothing'

/** What the words before a number say of it: the nearest one counts. */
export function sayingOf(before: string): Around {
  if (SIGN.test(before) || WITH_FAX.test(before)) return 'telephone'
  if (FAX_SIGN.test(before)) return 'other'
  const near = fold(before)
    .split(/[^\p{L}\p{N}.-]+/u)
    .map((word) => word.replace(/^[.-]+|[.-]+$/g, ''))
    .filter((word) => word !== '' && !/^\d+$/.test(word))
    .slice(-NEAR)
    .reverse()
  for (const [at, word] of near.entries()) {
    const behind = near[at - 1]
    if (OTHER_WORDS.has(word)) return 'other'
    if (OTHER_OF.has(word) && (behind === undefined || NUMBER_WORDS.has(behind))) return 'other'
    if (NUMBER_WORDS.has(word)) continue
    if (NUMBER_OF.test(word)) return OF_PHONE.test(word) ? 'telephone' : 'other'
    if (PHONE_WORDS.has(word) || /^(?:tel|phone|telefon)/.test(word)) return 'telephone'
  }
  return 'nothing'
}

/** What stands right behind a number and says that it is another thing: a unit, a currency, a part of an hour. */
const BEHIND =
  /^\s*(?:€|\$|£|eur\b|euro\b|usd\b|chf\b|gbp\b|%|°|km\b|m²|qm\b|kg\b|cm\b|mm\b|uhr\b|h\b(?!\w)|px\b|mb\b|kb\b)/i
/** What stands right before a number: a currency, a mark of an amount, of a version, of a coordinate. */
const BEFORE = /(?:€|\$|£|#|№|=|[\p{L}\p{N}]\/|\bv)\s*$/iu

export const isOtherByMarks = (before: string, behind: string): boolean => BEHIND.test(behind) || BEFORE.test(before)

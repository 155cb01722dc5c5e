import { fold } from '../table'
import { takeLegalForm } from './companyName'

/** Trades as they stand in names of companies, folded. None of them is a surname one meets. */
const TRADES = new Set(
  `bakery patisserie restaurant bistro pizzeria hotel hostel plumbing roofing heating electrical electrics dental dentistry
   clinic pharmacy garage motors autos salon barbers solutions consulting consultants services group holding holdings
   logistics transport haulage trading builders construction contractors properties realty estates insurance
   solicitors attorneys accountants systems technologies software studios fitness camping campsite florists laundry
   cleaning catering travel tours supplies wholesale distributors industries enterprises associates brothers bros
   landscaping joinery scaffolding foods imports exports
   backerei metzgerei fleischerei gasthof gasthaus apotheke autohaus werkstatt zahnarztpraxis praxis kanzlei immobilien
   versicherungen tischlerei schreinerei gartnerei elektrotechnik haustechnik bauunternehmen transporte logistik
   boulangerie pharmacie plomberie menuiserie assurances immobilier traiteur
   panaderia farmacia ferreteria taller restaurante inmobiliaria asesoria seguros construcciones
   ristorante trattoria panificio officina farmacia immobiliare costruzioni autofficina
   bakkerij slagerij apotheek makelaardij installatiebedrijf
   piekarnia restauracja apteka warsztat hurtownia padaria farmacia oficina imobiliaria pekarna lekarna restaurace
   restauranten bageri apotek bilverkstad`.split(/\s+/),
)
/** Those that stand first in their languages. */
const TRADES_IN_FRONT = new Set(
  `hotel hostel restaurant ristorante restaurante trattoria pizzeria boulangerie pharmacie farmacia garage autohaus
   backerei apotheke metzgerei fleischerei gasthof gasthaus camping praxis kanzlei panaderia ferreteria taller clinica
   bakkerij slagerij apotheek officina panificio piekarnia restauracja apteka padaria tischlerei schreinerei zahnarztpraxis
   immobilien assurances plomberie menuiserie inmobiliaria asesoria autofficina`.split(/\s+/),
)
const AND_KIN =
  /(?:&|\band\b|\bund\b|\bet\b|\by\b|\be\b)\s+(?:sons?|daughters?|co\.?|söhne|sohn|töchter|fils|filles?|hijos|figli|zonen)$/iu
/** Two letters are a surname as well, so they count only as they are written on a letterhead. */
const SHORT_FORMS = new Set(['AG', 'KG', 'BV', 'NV', 'AB', 'OY', 'UG'])
const SURNAMES = /^(?:as|se|sa|sl|pt|as|ao|asa|hb|ky|bt|earl|epp|mei|ans|tmi|sia|amba|sci|scp|ivs|spa|sau)\.?$/i

/** True where the last word, or the first, is a trade: asked of every name, so two looks into a set. */
export function namesTrade(name: string): boolean {
  const last = name.slice(name.lastIndexOf(' ') + 1)
  const space = name.indexOf(' ')
  const first = space === -1 ? '' : name.slice(0, space)
  return (last.length > 4 && TRADES.has(keyOf(last))) || (first.length > 4 && TRADES_IN_FRONT.has(keyOf(first)))
}

/** Folding takes time, and most names have nothing to fold. */
const keyOf = (word: string): string => (/^[A-Za-z]+$/.test(word) ? word.toLowerCase() : fold(word))

/** True for a company that stands where a name should: its legal form, or a word for a trade, tells. */
export function isCompany(name: string): boolean {
  const words = name.split(' ')
  if (words.length < 2 && !/[㈱社]/u.test(name)) return false
  if (AND_KIN.test(name)) return true
  if (TRADES.has(fold(words.at(-1) ?? '')) || TRADES_IN_FRONT.has(fold(words[0] ?? ''))) return true
  const { form } = takeLegalForm(name)
  if (form === '' || SURNAMES.test(form)) return false
  if (/[.&(/]/.test(form) || form.replace(/[^\p{L}]/gu, '').length > 2) return true
  return SHORT_FORMS.has(form) && name !== name.toUpperCase()
}

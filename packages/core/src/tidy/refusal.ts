export const REFUSAL_KINDS = ['do-not-contact', 'opted-out', 'deceased', 'left'] as const
/** What a remark says: never again, not by this list, nobody there any more. */
export type RefusalKind = (typeof REFUSAL_KINDS)[number]

export interface Refusal {
  readonly kind: RefusalKind
  /** The remark as it stands. */
  readonly remark: string
  /** What is left of the cell without it. */
  readonly rest: string
}

/** What people write, by what it says, in the languages lists come in. */
const PHRASES: Record<RefusalKind, readonly string[]> = {
  'do-not-contact': [
    "do(?: not|n['’]?t) (?:call|contact|phone|ring|text|e-?mail|mail|disturb)(?: again| any ?more)?",
    'never (?:call|contact|phone|ring|text|e-?mail)(?: again)?',
    'dnc',
    'no (?:more )?(?:calls|contact|texts|marketing)(?: please)?(?=[\\s.!)\\]]*$)',
    '(?:bitte )?nicht (?:mehr )?(?:anrufen|kontaktieren|anschreiben)',
    'kein(?:e|en)? (?:werbung|anrufe|kontakt)(?: mehr)?(?: erwünscht)?',
    'ne (?:pas|plus) (?:appeler|contacter|rappeler|déranger)',
    'no (?:llamar|contactar|molestar)(?: más)?',
    'non (?:chiamare|contattare|disturbare)(?: più)?',
    'niet (?:meer )?(?:bellen|contacteren|benaderen)',
    'não (?:ligar|contactar|contatar|incomodar)(?: mais)?',
    'nie (?:dzwonić|kontaktować)(?: się)?',
    '(?:ring|kontakta) (?:inte|ej)',
    'nevolat',
    'не звонить',
  ],
  'opted-out': [
    'opt(?:ed)?[ -]?out',
    'unsubscribed?',
    'has objected',
    'objects? to (?:marketing|contact|calls)',
    'wants? no (?:more )?(?:calls|contact|marketing|e-?mails)',
    'abgemeldet',
    'widerspr(?:uch|ochen)(?: eingelegt)?',
    'désabonnée?',
    'désinscrite?',
    "s[ ’']oppose au démarchage",
    'dado de baja',
    'se dio de baja',
    'disiscritt[oa]',
    'uitgeschreven',
    'afgemeld',
    'cancelou (?:a )?(?:inscrição|subscrição)',
    'wypisan[ya]',
    'avregistrerad',
    'afmeldt',
    'отписал(?:ся|ась)',
  ],
  deceased: [
    'deceased',
    'passed away',
    'has died',
    '(?:ist )?verstorben',
    'décédée?',
    'fallecid[oa]',
    'decedut[oa]',
    'overleden',
    'falecid[oa]',
    'zmarł[ay]?',
    'avliden',
    'zemřel[a]?',
    'умер(?:ла)?',
  ],
  left: [
    '(?:has )?left (?:the )?(?:company|firm|business)',
    'no longer (?:with|at|works?)(?: (?:the |this )?(?:company|firm|business|here|us))?',
    'not (?:employed|working) (?:here|there) any ?more',
    'ausgeschieden',
    '(?:hat die firma|firma) verlassen',
    'nicht mehr (?:im unternehmen|bei der firma|da)',
    "a quitté (?:la société|l[’']entreprise)",
    'ne travaille plus ici',
    'ya no trabaja(?: aquí)?',
    'non lavora più(?: qui)?',
    'uit dienst',
    'já não trabalha(?: aqui)?',
    'już nie pracuje',
    'har slutat',
    'не работает',
  ],
}
const EDGE = '[\\s,;:()\\[\\]/|*!.–—-]'
/** `Do not call before nine` says when, and is no refusal. */
const WHEN =
  '(?!\\s+(?:before|after|on|until|till|between|during|at|in the|if|unless|without|vor|nach|am|zwischen|wenn|avant|après|entre|antes|después|prima|dopo|voor|tussen|na)\\b)'
const PATTERNS = REFUSAL_KINDS.map((kind) => ({
  kind,
  pattern: new RegExp(`(?:^|(?<=${EDGE}))(?:${PHRASES[kind].join('|')})${WHEN}(?=${EDGE}|$)`, 'iu'),
}))
/** Beginnings of what may be such a remark: most cells hold none of them, and are passed over. */
const MAY =
  /\b(?:do(?: no|n)|never|dnc\b|no |nicht|kein|ne p|n[ãe]o |non |niet|nie |(?:ring|kontakta) |nevol|opt|unsub|has |objects?|abgem|widersp|d[ée]s(?:abonn|inscri)|s.oppose|s. oppose|dado|se dio|disiscr|uitge|afgem|cancelou|wypis|avreg|afmel|deceas|passed|ist v|verstor|d[ée]c[ée]d|fallec|overl|falec|zmar|avlid|zem|left|not |ausge|hat |firma v|a qui|ya no|uit d|j[áa] n|ju|har s|wants?|bitte)|[\u0400-\u04ff]/i
/** What one word alone can begin with: numbers, addresses and most codes are passed over by their first sign. */
const FIRST_OF_ONE =
  /^[\s([{*!–—-]*(?:d[enoé]|opt|unsub|abgem|ausg|verst|widers|d[ée]s|disis|uitg|afg|overl|fal|wypis|zmar|avr|avl|avs|zem|nevol|afm|отп|умер)/i

/** One look at each cell: of those in which a blank stands the words count, of the others the first letters. */
function mayRefuse(cell: string): boolean {
  if (!/[a-z\u00c0-\uffff]/i.test(cell)) return false
  const isOne = !cell.includes(' ')
  if (isOne && (cell.length > 40 || !FIRST_OF_ONE.test(cell))) return false
  return MAY.test(cell)
}

/** Where it tells of somebody else, or of a thing. */
const OF_OTHERS = /(?:father|mother|husband|wife|estate of (?:the )?|owner|line|number|dog)\s*$/iu

/** A remark in a cell that says no; null where there is none. A whole sentence about other things stays. */
export function readRefusal(cell: string): Refusal | null {
  if (cell.length < 3 || cell.length > 400 || !mayRefuse(cell)) return null
  for (const { kind, pattern } of PATTERNS) {
    const found = pattern.exec(cell)
    if (!found) continue
    if (OF_OTHERS.test(cell.slice(0, found.index))) continue
    return { kind, remark: found[0].trim(), rest: restOf(cell, found) }
  }
  return null
}

/** What stood round the remark, without the brackets and dashes that parted it. */
function restOf(cell: string, found: RegExpExecArray): string {
  const before = cell.slice(0, found.index).replace(/[\s,;:([|/*!–—-]+$/u, '')
  const behind = cell.slice(found.index + found[0].length).replace(/^[\s,;:)\]|/*!.–—-]+/u, '')
  return [before, behind].filter(Boolean).join(' ')
}

import { percentDecoded } from '../percent'

const ANCHOR = /<a\b[^>]*\bhref\s*=\s*["']?\s*((?:tel|sms|sip|sips|callto):[^"'>\s]+)/gi
const TAG = /<\/?[a-z][^>]*>/gi
const ENTITIES: readonly (readonly [RegExp, string])[] = [
  [/&nbsp;|&#160;|&#xa0;/gi, ' '],
  [/&plus;|&#43;|&#x2b;/gi, '+'],
  [/&(?:ndash|mdash|minus|#8211|#8212);/gi, '-'],
  [/&(?:zwnj|zwj|shy|#8203);/gi, ''],
  [/&amp;/gi, '&'],
]

/** A cell without the mark-up of web pages: where an anchor dials, what it dials; else what it shows. */
export function withoutMarkup(text: string): string {
  if (!text.includes('<') && !text.includes('&')) return text
  const dialled = [...text.matchAll(ANCHOR)].map((match) => match[1] ?? '')
  if (dialled.length > 0) return dialled.join('\n')
  return ENTITIES.reduce((plain, [entity, sign]) => plain.replace(entity, sign), text.replace(TAG, ' ')).trim()
}

/** Schemes of addresses that dial. */
const SCHEME = /^<?(?:url:)?(tel|sms|smsto|callto|sip|sips):(?:\/\/)?(?=[+(\d%])/i
const LINK = /^https?:\/\/[^\s/?#]+\/(?:[^\s?#]*\/)?\+?(\d{8,15})\/?(?:[?#]\S*)?$/i
const LINK_QUERY = /^https?:\/\/\S*[?&](?:phone|tel|number|to|p)=(?:\+|%2b)?(\d{8,15})(?:&\S*)?$/i

/**
 * What an address dials: a URI of RFC 3966 with its parameters, `sip:` (RFC 3261, 19.1.1) where its user is a number,
 * or a web link whose path or query is a number with its calling code.
 * @returns the number as text, extension behind `;ext=`; null for any other text
 */
export function dialledByAddress(text: string): string | null {
  if (!text.includes(':')) return null
  const link = LINK.exec(text)?.[1] ?? LINK_QUERY.exec(text)?.[1]
  if (link !== undefined) return `+${link}`
  const scheme = SCHEME.exec(text)
  if (!scheme) return null
  const rest = text.slice(scheme[0].length).replace(/>$/, '')
  const isSip = /^sips?$/i.test(scheme[1] ?? '')
  const [whole = ''] = isSip ? rest.split('@') : rest.split('?')
  return numberOfUri(percentDecoded(whole) ?? whole)
}

function numberOfUri(whole: string): string {
  const [number = '', ...parameters] = whole.split(';')
  const parameter = (name: string) =>
    parameters.find((one) => one.toLowerCase().startsWith(`${name}=`))?.slice(name.length + 1)
  const context = parameter('phone-context')
  const extension = parameter('ext')
  // A prefix comes before the local digits; a domain only says where they are local.
  const isPrefix = context?.startsWith('+') && !number.trim().startsWith('+')
  return `${isPrefix ? context : ''}${number}${extension ? `;ext=${extension.replace(/\D/g, '')}` : ''}`
}

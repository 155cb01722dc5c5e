import { isIP } from 'node:net'
import type { HarvestPlan } from '@upper-field/contract'
import { siteOf } from '@upper-field/core/harvest'
import { isPublicAddress } from '../connections/outgoing'

export interface ReadAddresses {
  /** Addresses of pages, each once, in their order. */
  readonly urls: readonly string[]
  readonly unread: HarvestPlan['unread']
  readonly repeated: number
}

/** Reads addresses as people write them: with a scheme or without, several in a line, whatever stands around them. */
export function readAddresses(lines: readonly string[]): ReadAddresses {
  const urls = new Set<string>()
  const unread: HarvestPlan['unread'] = []
  let repeated = 0
  for (const [at, line] of lines.entries()) {
    for (const text of line.split(/[\s,;<>"]+/).filter((part) => part !== '')) {
      const read = asUrl(text)
      if (typeof read !== 'string') unread.push({ line: at + 1, text: text.slice(0, 200), why: read.why })
      else if (urls.has(read)) repeated++
      else urls.add(read)
    }
  }
  return { urls: [...urls], unread, repeated }
}

type Unread = { readonly why: HarvestPlan['unread'][number]['why'] }

/** The address of a page, or why it is none. A name alone is read without encryption first: most sites lead on from there. */
function asUrl(text: string): string | Unread {
  const scheme = /^([a-z][a-z0-9+.-]*):(?!\d)/i.exec(text)?.[1]?.toLowerCase()
  if (scheme && scheme !== 'http' && scheme !== 'https') return { why: 'scheme' }
  const full = scheme ? text : `http://${text}`
  if (!URL.canParse(full)) return { why: 'no-address' }
  const url = new URL(full)
  url.hash = ''
  url.username = ''
  url.password = ''
  const host = url.hostname.replace(/^\[(.*)\]$/, '$1')
  if (isIP(host) ? !isPublicAddress(host) : host === 'localhost' || host.endsWith('.localhost'))
    return { why: 'private' }
  // A word without a dot is no site of the web.
  return isIP(host) || /[^.]\.[^.]/.test(host) ? url.href : { why: 'no-address' }
}

/** The sites of addresses, in the order in which they come first. */
export const sitesOf = (urls: readonly string[]): readonly string[] => [...new Set(urls.map(siteOf))]

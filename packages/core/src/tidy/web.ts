import { getDomain } from 'tldts'
import { remember } from '../remember'

const domainOf = remember((host: string) => getDomain(host))

/** The registrable domain of a web address or e-mail, by the public suffix list; null where there is none. */
export function readDomain(text: string): string | null {
  const bare = text.trim().toLowerCase()
  if (bare === '' || /\s/.test(bare)) return null
  return domainOf(bare.includes('@') ? bare.slice(bare.lastIndexOf('@') + 1) : bare)
}

/** A profile address in one form: no scheme, no `www`, no tracking, no slash at the end. */
export function readProfile(text: string): string | null {
  const match = /^(?:https?:\/\/)?(?:www\.)?([^\s/?#]+\.[^\s/?#]+)(\/[^\s?#]+)/i.exec(text.trim())
  if (!match?.[1] || !match[2]) return null
  return `${match[1].toLowerCase()}${match[2].replace(/\/+$/, '')}`
}

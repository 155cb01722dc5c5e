import { headingKey } from './headingWords'

/** A key that is the same for files laid out alike: their headings, in order. Null where there are none to know it by. */
export function layoutKey(headings: readonly string[]): string | null {
  const named = headings.filter((heading) => heading !== '' && !/^Column \d+$/.test(heading))
  if (named.length < 2) return null
  return `${headings.length}:${fnv(headings.map(headingKey).join('\u001f'))}`
}

/** FNV-1a, twice 32 bits: keys are compared among one team's layouts, not kept secret. */
function fnv(text: string): string {
  let a = 0x811c9dc5
  let b = 0x01000193
  for (let i = 0; i < text.length; i++) {
    a = Math.imul(a ^ text.charCodeAt(i), 0x01000193)
    b = Math.imul(b ^ text.charCodeAt(i), 0x85ebca6b)
  }
  return [a, b].map((half) => (half >>> 0).toString(16).padStart(8, '0')).join('')
}

import { decodeHTMLStrict } from 'entities'

const ENTITY = /&(?:#\d{1,7}|#x[\da-f]{1,6}|[a-z][a-z\d]{1,31});/i
/** A text may have been written for a page twice on its way. */
const MOST_TIMES = 3

/**
 * A text with the signs that a page writes as entities (`O&#39;Connor`, `AT&amp;T`), as those signs. Source: the HTML
 * standard, named character references; only those that end in a semicolon.
 * @returns null where there are none
 */
export function mendEntities(text: string): string | null {
  let mended = text
  for (let times = 0; times < MOST_TIMES && mended.includes('&') && ENTITY.test(mended); times++)
    mended = decodeHTMLStrict(mended).replaceAll('\u00a0', ' ')
  return mended === text ? null : mended
}

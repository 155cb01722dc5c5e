import { createHmac, timingSafeEqual } from 'node:crypto'

/** Letters and digits that cannot be taken for each other (Crockford's base 32). */
const SIGNS = '0123456789ABCDEFGHJKMNPQRSTVWXYZ'
const LENGTH = 24

/**
 * The code that lets the first visitor make the owner: 120 bits, derived from the secret, so that every process of the
 * application knows the same one without keeping it. In groups of four, to be typed.
 */
export function setupCode(secret: string): string {
  const bytes = createHmac('sha256', secret).update('first owner').digest()
  const signs = Array.from(bytes.subarray(0, LENGTH), (byte) => SIGNS[byte % 32]).join('')
  return signs.replace(/(.{4})(?=.)/g, '$1-')
}

export function isSetupCode(secret: string, code: string): boolean {
  const plain = (text: string) =>
    Buffer.from(
      text
        .toUpperCase()
        .replace(/[^0-9A-Z]/g, '')
        .slice(0, 64),
    )
  const [expected, given] = [plain(setupCode(secret)), plain(code)]
  return given.length === expected.length && timingSafeEqual(given, expected)
}

import { createCipheriv, createDecipheriv, hkdfSync, randomBytes } from 'node:crypto'

/** Seals provider keys at rest: AES-256-GCM, with a key derived from the installation's secret (HKDF, RFC 5869). */
const keyFrom = (secret: string): Buffer => Buffer.from(hkdfSync('sha256', secret, 'upper-field', 'provider keys', 32))

export function seal(text: string, secret: string): string {
  const nonce = randomBytes(12)
  const cipher = createCipheriv('aes-256-gcm', keyFrom(secret), nonce)
  const sealed = Buffer.concat([cipher.update(text, 'utf8'), cipher.final()])
  return Buffer.concat([nonce, cipher.getAuthTag(), sealed]).toString('base64')
}

/** Throws where the text was changed or sealed with another secret. */
export function unseal(sealed: string, secret: string): string {
  const all = Buffer.from(sealed, 'base64')
  const decipher = createDecipheriv('aes-256-gcm', keyFrom(secret), all.subarray(0, 12))
  decipher.setAuthTag(all.subarray(12, 28))
  return Buffer.concat([decipher.update(all.subarray(28)), decipher.final()]).toString('utf8')
}

/** What was sealed with one of these secrets: the text, and which secret it was. Null where none opens it. */
export function unsealWithAny(
  sealed: string,
  secrets: readonly string[],
): { readonly text: string; readonly secret: string } | null {
  for (const secret of secrets) {
    try {
      return { text: unseal(sealed, secret), secret }
    } catch {
      // Sealed with another: the next is tried.
    }
  }
  return null
}

import type { ByteSource } from '@upper-field/files'

/** A local file, read from the disk as it is needed. */
export const fileSource = (file: Blob): ByteSource => ({
  size: file.size,
  read: async (start, end) => new Uint8Array(await file.slice(start, end).arrayBuffer()),
})

/** SHA-256 of bytes, in hexadecimal digits. */
export async function sha256Of(bytes: Blob): Promise<string> {
  const digest = await crypto.subtle.digest('SHA-256', await bytes.arrayBuffer())
  return Array.from(new Uint8Array(digest), (byte) => byte.toString(16).padStart(2, '0')).join('')
}

/** Encodings begin with a mark of their own. */
const MARKS = [
  [[0xef, 0xbb, 0xbf], 'utf-8'],
  [[0xff, 0xfe], 'utf-16le'],
  [[0xfe, 0xff], 'utf-16be'],
] as const

const markOf = (bytes: Uint8Array): string | undefined =>
  MARKS.find(([mark]) => mark.every((byte, at) => bytes[at] === byte))?.[1]

/** So much of a page is searched for what it says of its encoding (HTML, section 13.2.3.2). */
const HEAD = 2048

/**
 * The text of a page: by its byte order mark, by what its server said, by what it says of itself, else UTF-8; what is
 * none of that is read as Windows-1252, as browsers do.
 * @param told the encoding its server gave; null where it gave none
 */
export function decodePage(bytes: Uint8Array, told: string | null = null): string {
  const head = new TextDecoder('latin1').decode(bytes.subarray(0, HEAD))
  const said = /<meta[^>]+charset=["']?([a-z0-9_-]+)/i.exec(head)?.[1]
  for (const label of [markOf(bytes), told, said, 'utf-8']) {
    if (!label) continue
    try {
      return new TextDecoder(label, { fatal: true }).decode(bytes)
    } catch {
      // Not in this encoding, or one that nobody knows: the next is tried.
    }
  }
  return new TextDecoder('windows-1252').decode(bytes)
}

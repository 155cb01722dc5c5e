const ENCODED = /^[^\s%]*(?:%[0-9a-f]{2}[^\s%]*)+$/i

/** A cell written as in web addresses (RFC 3986, section 2.1), plain; null for any other, and for broken ones. */
export function percentDecoded(cell: string): string | null {
  if (!cell.includes('%') || !ENCODED.test(cell)) return null
  try {
    const plain = decodeURIComponent(cell)
    return plain === cell ? null : plain
  } catch {
    return null
  }
}

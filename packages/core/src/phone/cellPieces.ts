/** A stretch of a cell: a word, or digits with the signs among and around them. */
export interface Piece {
  readonly kind: 'word' | 'digits' | 'signs'
  readonly text: string
  /** Where it starts in the cell. */
  readonly at: number
}

const WORD = /[\p{L}\p{M}]+(?:['’][\p{L}\p{M}]+)*\.?/gu

/** A cell as words and what stands between them, in order; nothing is left out. */
export function piecesOf(text: string): readonly Piece[] {
  const pieces: Piece[] = []
  let at = 0
  for (const match of text.matchAll(WORD)) {
    addBetween(pieces, text.slice(at, match.index), at)
    pieces.push({ kind: 'word', text: match[0], at: match.index })
    at = match.index + match[0].length
  }
  addBetween(pieces, text.slice(at), at)
  return pieces
}

function addBetween(pieces: Piece[], text: string, at: number): void {
  if (text !== '') pieces.push({ kind: /\d/.test(text) ? 'digits' : 'signs', text, at })
}

/**
 * Keeps the last answers of a pure function of one text: the same countries, domains and hosts stand in row after
 * row. All are dropped at once when there are too many, which costs less than keeping their order.
 */
export function remember<T>(answer: (text: string) => T, most = 20_000): (text: string) => T {
  const known = new Map<string, T>()
  return (text) => {
    const found = known.get(text)
    if (found !== undefined || known.has(text)) return found as T
    if (known.size >= most) known.clear()
    const made = answer(text)
    known.set(text, made)
    return made
  }
}

/** True for two texts that one slip of a key parts: one letter more, less or other, or two changed round. */
export function isOneSlipApart(a: string, b: string): boolean {
  const more = a.length - b.length
  if (more > 1 || more < -1 || a === b) return false
  let start = 0
  while (start < a.length && a.charCodeAt(start) === b.charCodeAt(start)) start++
  let endOfA = a.length
  let endOfB = b.length
  while (endOfA > start && endOfB > start && a.charCodeAt(endOfA - 1) === b.charCodeAt(endOfB - 1)) {
    endOfA--
    endOfB--
  }
  const left = endOfA - start
  const right = endOfB - start
  if (left <= 1 && right <= 1) return true
  return left === 2 && right === 2 && a[start] === b[start + 1] && a[start + 1] === b[start]
}

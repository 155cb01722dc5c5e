/** Builds one automaton over digits from many patterns, and makes it as small as it can be. */

interface Node {
  /** Digits that lead on, as a bit mask, with the node they lead to. */
  readonly steps: { readonly mask: number; readonly to: number }[]
  readonly free: number[]
}

export interface Automaton {
  /** For each state ten states, one for each digit; 0 is the dead state. */
  readonly next: readonly (readonly number[])[]
  /** For each state the patterns that end there, as a sorted list joined with commas. */
  readonly accepts: readonly string[]
  readonly start: number
}

const ALL = 0b1111111111

/** Compiles patterns of digits (classes, groups, alternatives, counts) into one automaton that tells which match. */
export function compile(patterns: readonly string[]): Automaton {
  const nodes: Node[] = []
  const node = () => nodes.push({ steps: [], free: [] }) - 1
  const start = node()
  const ends = new Map<number, number>()
  for (const [i, pattern] of patterns.entries()) {
    const { from, to } = parse(pattern, nodes, node)
    nodes[start]?.free.push(from)
    ends.set(to, i)
  }
  return minimise(determinise(nodes, start, ends))
}

interface Part {
  readonly from: number
  readonly to: number
}

function parse(pattern: string, nodes: Node[], node: () => number): Part {
  let at = 0
  const peek = () => pattern[at] ?? ''
  const single = (mask: number): Part => {
    const [from, to] = [node(), node()]
    nodes[from]?.steps.push({ mask, to })
    return { from, to }
  }
  const empty = (): Part => {
    const only = node()
    return { from: only, to: only }
  }
  const join = (a: Part, b: Part): Part => {
    nodes[a.to]?.free.push(b.from)
    return { from: a.from, to: b.to }
  }
  const alternatives = (): Part => {
    const parts = [sequence()]
    while (peek() === '|') {
      at++
      parts.push(sequence())
    }
    if (parts.length === 1 && parts[0]) return parts[0]
    const [from, to] = [node(), node()]
    for (const part of parts) {
      nodes[from]?.free.push(part.from)
      nodes[part.to]?.free.push(to)
    }
    return { from, to }
  }
  const sequence = (): Part => {
    let whole = empty()
    while (at < pattern.length && peek() !== '|' && peek() !== ')') whole = join(whole, counted())
    return whole
  }
  const counted = (): Part => {
    const begin = at
    const first = atom()
    const source = pattern.slice(begin, at)
    const { least, most } = count()
    if (least === 1 && most === 1) return first
    // Each repetition is read anew, so that it has nodes of its own.
    const again = (): Part => {
      const after = at
      at = begin
      const part = atom()
      if (pattern.slice(begin, at) !== source) throw new Error(`pattern: ${pattern}`)
      at = after
      return part
    }
    let whole = empty()
    for (let i = 0; i < least; i++) whole = join(whole, again())
    const exit = node()
    nodes[whole.to]?.free.push(exit)
    for (let i = least; i < most; i++) {
      whole = join(whole, again())
      nodes[whole.to]?.free.push(exit)
    }
    return { from: whole.from, to: exit }
  }
  const count = (): { least: number; most: number } => {
    if (peek() === '?') {
      at++
      return { least: 0, most: 1 }
    }
    const found = /^\{(\d+)(?:,(\d+))?\}/.exec(pattern.slice(at))
    if (!found) return { least: 1, most: 1 }
    at += found[0].length
    return { least: Number(found[1]), most: Number(found[2] ?? found[1]) }
  }
  const atom = (): Part => {
    const char = pattern[at++] ?? ''
    if (char >= '0' && char <= '9') return single(1 << Number(char))
    if (char === '\\' && pattern[at] === 'd') {
      at++
      return single(ALL)
    }
    if (char === '[') return single(classMask())
    if (char === '(') {
      if (pattern.startsWith('?:', at)) at += 2
      const inner = alternatives()
      if (pattern[at++] !== ')') throw new Error(`pattern: ${pattern}`)
      return inner
    }
    throw new Error(`unknown ${char} in pattern ${pattern}`)
  }
  const classMask = (): number => {
    let mask = 0
    while (peek() !== ']') {
      if (pattern.startsWith('\\d', at)) {
        mask |= ALL
        at += 2
        continue
      }
      const low = Number(pattern[at])
      const isRange = pattern[at + 1] === '-'
      const high = isRange ? Number(pattern[at + 2]) : low
      at += isRange ? 3 : 1
      for (let digit = low; digit <= high; digit++) mask |= 1 << digit
    }
    at++
    return mask
  }
  const whole = alternatives()
  if (at !== pattern.length) throw new Error(`pattern: ${pattern}`)
  return whole
}

function determinise(nodes: readonly Node[], start: number, ends: ReadonlyMap<number, number>): Automaton {
  const close = (from: Iterable<number>): number[] => {
    const seen = new Set(from)
    const open = [...seen]
    for (let at = open.pop(); at !== undefined; at = open.pop()) {
      for (const to of nodes[at]?.free ?? []) {
        if (seen.has(to)) continue
        seen.add(to)
        open.push(to)
      }
    }
    return [...seen].sort((a, b) => a - b)
  }
  const ids = new Map<string, number>([['', 0]])
  const sets: number[][] = [[]]
  const idOf = (set: number[]): number => {
    const key = set.join()
    const known = ids.get(key)
    if (known !== undefined) return known
    ids.set(key, sets.length)
    return sets.push(set) - 1
  }
  const first = idOf(close([start]))
  const next: number[][] = [Array.from({ length: 10 }, () => 0)]
  for (let id = 1; id < sets.length; id++) {
    const set = sets[id] ?? []
    next[id] = Array.from({ length: 10 }, (_, digit) => {
      const reached = set.flatMap((at) =>
        (nodes[at]?.steps ?? []).filter(({ mask }) => mask & (1 << digit)).map(({ to }) => to),
      )
      return idOf(close(reached))
    })
  }
  const accepts = sets.map((set) =>
    set
      .flatMap((at) => ends.get(at) ?? [])
      .sort((a, b) => a - b)
      .join(),
  )
  return { next, accepts, start: first }
}

/** Joins states that cannot be told apart (Moore). */
function minimise({ next, accepts, start }: Automaton): Automaton {
  let classes = number(accepts.map(String))
  for (;;) {
    const finer = number(next.map((row, id) => `${classes[id]}|${row.map((to) => classes[to]).join()}`))
    if (Math.max(...finer) === Math.max(...classes)) break
    classes = finer
  }
  // The dead state stays number 0.
  const dead = classes[0] ?? 0
  const place = (one: number) => (one === dead ? 0 : one < dead ? one + 1 : one)
  const rows: number[][] = []
  const ends: string[] = []
  for (const [id, row] of next.entries()) {
    const at = place(classes[id] ?? 0)
    rows[at] ??= row.map((to) => place(classes[to] ?? 0))
    ends[at] ??= accepts[id] ?? ''
  }
  return { next: rows, accepts: ends, start: place(classes[start] ?? 0) }
}

function number(keys: readonly string[]): number[] {
  const ids = new Map<string, number>()
  return keys.map((key) => {
    const known = ids.get(key) ?? ids.size
    ids.set(key, known)
    return known
  })
}

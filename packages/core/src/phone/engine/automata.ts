import { DIGITS, ZERO } from './digits'
import { STATES } from './planData'

/** Words a state: ten next states and the outcome there. State 0 is where digits are no number. */
const WIDTH = 11
const OUTCOME = 10
/** Next states from here on are ends: what comes of the number is told by how many digits are left alone. */
const FIRST_END = 0x8000
/** Words an end: the outcome for each number of digits that may be left. */
const END_WIDTH = 32

interface Automata {
  readonly states: Uint16Array
  readonly ends: Uint16Array
}

let automata: Automata | null = null

let stored: Uint16Array | null = null

/** The automata as they are stored. */
function storedStates(): Uint16Array {
  if (stored) return stored
  const text = atob(STATES)
  stored = new Uint16Array(text.length / 2)
  for (let i = 0; i < stored.length; i++) stored[i] = text.charCodeAt(i * 2) | (text.charCodeAt(i * 2 + 1) << 8)
  return stored
}

/** Lengths that are counted apart, from none to this many digits. */
export const LONGEST_COUNTED = 17

/**
 * How many sequences of digits the automaton of a calling code brings to an outcome, by their length and by the group
 * the outcome belongs to (-1 for none). @returns the count at `length * groups + group`
 */
export function countOutcomes(start: number, groupOf: (outcome: number) => number, groups: number): Float64Array {
  const states = storedStates()
  const size = (LONGEST_COUNTED + 1) * groups
  const counted = new Map<number, Float64Array>([[0, new Float64Array(size)]])
  const visit = (state: number): Float64Array => {
    const known = counted.get(state)
    if (known) return known
    const sum = new Float64Array(size)
    counted.set(state, sum)
    const at = state * WIDTH
    const own = groupOf(states[at + OUTCOME] as number)
    if (own >= 0) sum[own] = 1
    for (let digit = 0; digit < OUTCOME; digit++) {
      const next = states[at + digit] as number
      if (next === 0) continue
      const below = visit(next)
      for (let i = groups; i < size; i++) sum[i] = (sum[i] as number) + (below[i - groups] as number)
    }
    return sum
  }
  return visit(start)
}

/** The automata, unpacked when the first number is read. */
function unpack(): Automata {
  automata = withEnds(storedStates())
  return automata
}

/** Most digits of a plan's number may be any: a state behind which all may be is made an end, and saves the steps. */
function withEnds(states: Uint16Array): Automata {
  const { endOf, outcomes } = findEnds(states)
  const ends = new Uint16Array(outcomes.length * END_WIDTH)
  for (const [end, list] of outcomes.entries()) ends.set(list, end * END_WIDTH)
  const next = states.map((word, at) => {
    const end = at % WIDTH === OUTCOME ? NO_END : (endOf[word] as number)
    return end === NO_END ? word : FIRST_END + end
  })
  return { states: next, ends }
}

const NO_END = -1

interface Ends {
  /** Number of the end that a state is, or `NO_END`. */
  readonly endOf: readonly number[]
  /** Outcomes of an end after no digit, one, two, and so on. */
  readonly outcomes: readonly (readonly number[])[]
}

function findEnds(states: Uint16Array): Ends {
  const endOf: number[] = Array.from({ length: states.length / WIDTH })
  const outcomes: (readonly number[])[] = [[]]
  const known = new Map<string, number>([['', 0]])
  endOf[0] = 0
  const visit = (state: number): number => {
    endOf[state] ??= findEnd(state)
    return endOf[state] as number
  }
  const findEnd = (state: number): number => {
    const at = state * WIDTH
    const first = states[at] as number
    const following = new Set(states.subarray(at, at + OUTCOME))
    for (const one of following) visit(one)
    if (following.size > 1 || visit(first) === NO_END) return NO_END
    return numberOf([states[at + OUTCOME] as number, ...(outcomes[visit(first)] as readonly number[])])
  }
  const numberOf = (list: readonly number[]): number => {
    const end = known.get(list.join()) ?? outcomes.push(list) - 1
    known.set(list.join(), end)
    return end
  }
  for (let state = 0; state < endOf.length; state++) visit(state)
  return { endOf, outcomes }
}

/** Number of the outcome that the automaton of a calling code comes to on national digits of the buffer. */
export function outcomeAfter(start: number, from: number, to: number): number {
  const { states, ends } = automata ?? unpack()
  const digits = DIGITS
  let state = start
  let at = from
  while (at < to && state < FIRST_END) state = states[state * WIDTH + (digits[at++] as number) - ZERO] as number
  if (state < FIRST_END) return states[state * WIDTH + OUTCOME] as number
  const left = to - at
  return left < END_WIDTH ? (ends[(state - FIRST_END) * END_WIDTH + left] as number) : 0
}

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

/** The automata, unpacked when the first number is read. */
function unpack(): Automata {
  const text = atob(STATES)
  const states = new Uint16Array(text.length / 2)
  for (let i = 0; i < states.length; i++) states[i] = text.charCodeAt(i * 2) | (text.charCodeAt(i * 2 + 1) << 8)
  automata = withEnds(states)
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

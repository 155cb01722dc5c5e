import { setImmediate } from 'node:timers/promises'
import { type MemberColumns, membersFrom, type PreparedMembers, type PrepareMembers } from '@upper-field/core/send'

/**
 * So many are brought into form before others have their turn: what is read meanwhile is asked for, and what is stored
 * told. What is made of more of them at once lives longer, and is costly to clear away.
 */
const TURN = 500

/** Some members in a destination's form. */
export interface Turn {
  /** Where they begin among all. */
  readonly from: number
  readonly size: number
  readonly prepared: PreparedMembers
}

/** Brings members into a destination's form, some hundred at a time, in their order. */
export async function* inTurns(members: MemberColumns, prepare: PrepareMembers): AsyncGenerator<Turn> {
  for (let from = 0; from < members.size; from += TURN) {
    await setImmediate()
    const some = membersFrom(members, from, from + TURN)
    yield { from, size: some.size, prepared: prepare(some) }
  }
}

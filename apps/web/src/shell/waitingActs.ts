import { createSlice, type PayloadAction } from '@reduxjs/toolkit'

/** An act that was asked for and takes longer than one expects: somebody else may be working on the list. */
export interface WaitingAct {
  readonly id: string
  readonly name: string
}

const slice = createSlice({
  name: 'waitingActs',
  initialState: [] as WaitingAct[],
  reducers: {
    begun: (acts, { payload }: PayloadAction<WaitingAct>) => void acts.push(payload),
    ended: (acts, { payload }: PayloadAction<string>) => acts.filter(({ id }) => id !== payload),
  },
})

export const waitingActs = slice.reducer
export const { begun, ended } = slice.actions

/** How long an act may take before it is told that it waits, in milliseconds. */
const PATIENCE = 1200

const controllers = new Map<string, AbortController>()

/**
 * Runs a call that can be given up: after a moment it stands among the waiting acts until it has ended.
 * @param dispatch of the store that tells it
 */
export async function watched<T>(
  name: string,
  dispatch: (action: ReturnType<typeof begun | typeof ended>) => unknown,
  call: (signal: AbortSignal) => Promise<T>,
): Promise<T> {
  const id = crypto.randomUUID()
  const controller = new AbortController()
  controllers.set(id, controller)
  const timer = setTimeout(() => dispatch(begun({ id, name })), PATIENCE)
  try {
    return await call(controller.signal)
  } finally {
    clearTimeout(timer)
    controllers.delete(id)
    dispatch(ended(id))
  }
}

/** Gives waiting acts up: the server does not begin them any more. */
export function giveUp(ids: readonly string[]): void {
  for (const id of ids) controllers.get(id)?.abort()
}

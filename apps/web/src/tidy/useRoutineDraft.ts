import type { TidyState } from '@upper-field/contract'
import { newStep, type Routine, type Step, type StepKind } from '@upper-field/core/tidy'
import { useMemo, useState } from 'react'

/** The routine as the operator is changing it, before it is applied. */
export interface RoutineDraft {
  readonly routine: Routine
  /** True where it differs from the one in force. */
  readonly isChanged: boolean
  move(stepId: string, over: string): void
  add(kind: StepKind): void
  remove(stepId: string): void
  change(step: Step): void
  use(routine: Routine): void
  discard(): void
}

export function useRoutineDraft(state: TidyState | undefined, onAdded: (stepId: string) => void): RoutineDraft {
  const [own, setOwn] = useState<Routine | null>(null)
  const inForce = useMemo<Routine>(() => state?.routine ?? { version: 1, steps: [] }, [state])
  const routine = own ?? inForce
  const { steps } = routine
  const set = (next: readonly Step[]) => setOwn({ version: routine.version, steps: next })
  return {
    routine,
    isChanged: own !== null && JSON.stringify(own) !== JSON.stringify(inForce),
    move: (stepId, over) => {
      const step = steps.find(({ id }) => id === stepId)
      const to = steps.findIndex(({ id }) => id === over)
      if (step) set(steps.filter((one) => one !== step).toSpliced(to, 0, step))
    },
    add: (kind) => {
      const id = freshId(kind, steps)
      set([...steps, newStep(kind, id)])
      onAdded(id)
    },
    remove: (stepId) => set(steps.filter(({ id }) => id !== stepId)),
    change: (step) => set(steps.map((one) => (one.id === step.id ? step : one))),
    use: setOwn,
    discard: () => setOwn(null),
  }
}

function freshId(kind: StepKind, steps: readonly Step[]): string {
  const taken = new Set(steps.map(({ id }) => id))
  if (!taken.has(kind)) return kind
  for (let n = 2; ; n++) if (!taken.has(`${kind}-${n}`)) return `${kind}-${n}`
}

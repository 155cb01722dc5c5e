import type { TidySample } from '@upper-field/contract'
import { type Reading, readPhoneCell } from '@upper-field/core/phone'
import {
  type Change,
  compileRoutine,
  type ProjectedContact,
  type ReadEmail,
  type Routine,
  readEmails,
  type StepProblem,
} from '@upper-field/core/tidy'

/** What a routine would make otherwise of the sample than the one in force. */
export interface Preview {
  /** Rows of the sample, and how many of them come out otherwise. */
  readonly rows: number
  readonly differing: number
  readonly values: readonly {
    readonly contactId: number
    readonly column: string
    readonly was: string
    readonly is: string
  }[]
  readonly problems: readonly StepProblem[]
}

export type TidyQuestion =
  | {
      readonly kind: 'preview'
      readonly id: number
      readonly sample: TidySample
      readonly before: Routine
      readonly after: Routine
    }
  | {
      readonly kind: 'read'
      readonly id: number
      readonly text: string
      readonly country: string
      /** Number and e-mail cells are read; what stands in others is taken as it is typed. */
      readonly holds: HandKind
    }

export type TidyAnswer =
  | { readonly kind: 'preview'; readonly id: number; readonly preview: Preview }
  | {
      readonly kind: 'read'
      readonly id: number
      readonly reading: Reading | null
      readonly emails: readonly ReadEmail[]
    }

export type HandKind = 'number' | 'email' | 'text'

const SHOWN = 12

// Whole rows are tidied here, never on the page's own thread.
self.addEventListener('message', ({ data }: MessageEvent<TidyQuestion>) => {
  if (data.kind === 'read') {
    const { id, text, country, holds } = data
    const reading = holds === 'number' ? readPhoneCell(text, { country: country || null }) : null
    answer({ kind: 'read', id, reading, emails: holds === 'email' ? readEmails(text) : [] })
    return
  }
  answer({ kind: 'preview', id: data.id, preview: preview(data.sample, data.before, data.after) })
})

const answer = (message: TidyAnswer): void => self.postMessage(message)

function preview(sample: TidySample, before: Routine, after: Routine): Preview {
  const tidiers = (routine: Routine) =>
    new Map(
      Object.entries(sample.layouts).map(([batchId, layout]) => [
        batchId,
        compileRoutine(routine, layout, { defaultCountry: layout.defaultCountry }),
      ]),
    )
  const [old, fresh] = [tidiers(before), tidiers(after)]
  const values: Preview['values'][number][] = []
  let differing = 0
  for (const { contactId, batchId, cells } of sample.rows) {
    const [was, is] = [old.get(batchId)?.tidy(cells), fresh.get(batchId)?.tidy(cells)]
    if (!was || !is || isSame(was, is)) continue
    differing++
    if (values.length < SHOWN)
      values.push(...differences(was.changes, is.changes).map((one) => ({ contactId, ...one })))
  }
  const [first] = fresh.values()
  return { rows: sample.rows.length, differing, values: values.slice(0, SHOWN), problems: first?.problems ?? [] }
}

const isSame = (a: ProjectedContact, b: ProjectedContact): boolean =>
  JSON.stringify([a.values, a.numbers, a.emails, a.extras]) ===
  JSON.stringify([b.values, b.numbers, b.emails, b.extras])

/** Columns whose value ends otherwise: what it is now beside what it would be. */
function differences(was: readonly Change[], is: readonly Change[]) {
  const columns = new Set([...was, ...is].map(({ column }) => column))
  return [...columns].flatMap((column) => {
    const [a, b] = [endOf(was, column), endOf(is, column)]
    const stood = [...was, ...is].find((one) => one.column === column)?.was ?? ''
    return (a ?? stood) === (b ?? stood) ? [] : [{ column, was: a ?? stood, is: b ?? stood }]
  })
}

const endOf = (changes: readonly Change[], column: string): string | undefined =>
  changes.findLast((one) => one.column === column)?.is

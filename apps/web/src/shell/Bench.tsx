import type { ReactNode } from 'react'
import { type Pile, Sieve } from './Sieve'
import { StoryPanel } from './StoryPanel'
import { useListView } from './useListView'

/** The three parts of a stage: sieve, bench, and the story or the stage's advice. */
export function Bench({ piles, children, advice }: { piles: readonly Pile[]; children: ReactNode; advice: ReactNode }) {
  return (
    <div className="flex h-full min-h-0">
      <Sieve piles={piles} />
      <main className="flex min-h-0 min-w-0 flex-1 flex-col px-5 py-3">{children}</main>
      <StoryOr>{advice}</StoryOr>
    </div>
  )
}

/** The right side of a stage: the story of the contact that is chosen, else what the stage has to say. */
export function StoryOr({ children }: { children: ReactNode }) {
  const { contactId } = useListView()
  return (
    <aside
      aria-label="Story and advice"
      className="h-full w-[312px] shrink-0 overflow-hidden border-l border-line bg-surface"
    >
      {contactId === null ? (
        <div className="h-full overflow-y-auto px-4 py-3">{children}</div>
      ) : (
        <StoryPanel key={contactId} contactId={contactId} />
      )}
    </aside>
  )
}

export function BenchTitle({ title, children }: { title: string; children?: ReactNode }) {
  return (
    <div className="flex flex-wrap items-baseline gap-x-3 pb-3">
      <h1>{title}</h1>
      {children ? <p className="text-soft">{children}</p> : null}
    </div>
  )
}

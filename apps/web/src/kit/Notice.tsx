import type { ReactNode } from 'react'

const TONES = {
  bad: 'bg-beet-bg text-beet',
  look: 'bg-straw-bg text-straw-ink',
  told: 'bg-slate-bg text-slate',
} as const

/** Something the operator has to know, said once. */
export function Notice({ tone, children }: { tone: keyof typeof TONES; children: ReactNode }) {
  return (
    <div role={tone === 'bad' ? 'alert' : 'status'} className={`rounded-small px-3 py-2 ${TONES[tone]}`}>
      {children}
    </div>
  )
}

/** What a view is for, while there is nothing in it, and the next act. */
export function Empty({ title, children }: { title: string; children?: ReactNode }) {
  return (
    <div className="flex max-w-md flex-col items-start gap-3 py-10">
      <h2>{title}</h2>
      {children}
    </div>
  )
}

export const Loading = ({ what }: { what: string }) => (
  <p role="status" className="py-6 text-soft">
    Reading {what} …
  </p>
)

import type { ReactNode } from 'react'
import { Link } from 'react-router'

interface DocumentPageProps {
  /** All documents of its kind: where they are listed, and what they are called. */
  readonly all: { readonly to: string; readonly text: string }
  readonly title: string
  readonly children: ReactNode
}

/** The page of one declared document, with the way back to all of its kind. */
export function DocumentPage({ all, title, children }: DocumentPageProps) {
  return (
    <main className="mx-auto h-full max-w-6xl overflow-y-auto px-6 py-6">
      <p className="text-[13px]">
        <Link to={all.to} className="text-slate underline underline-offset-2">
          {all.text}
        </Link>
      </p>
      <h1 className="pb-1">{title}</h1>
      {children}
    </main>
  )
}

import type { ReactNode } from 'react'
import { TextButton } from '../kit/Button'
import { Answer, type Asked } from '../shell/Answer'
import { BringTabs } from './BringTabs'

interface PartProps<T> {
  /** What the column on the left is for assistive technology, and as it is headed. */
  readonly label: string
  readonly title: string
  readonly emptyText: string
  /** Of the query for them. */
  readonly all: Asked<readonly T[]>
  readonly line: (one: T) => ReactNode
  /** Asks for more than so many; null where these are all. */
  readonly more?: (shown: number) => (() => void) | null
  /** What is to be brought in next. */
  readonly children: ReactNode
}

/** A part of Bring in: what came so far on the left, and what is to come. */
export function BringPart<T extends { readonly id: string }>(props: PartProps<T>) {
  const { label, title, emptyText, all, line, more, children } = props
  const showMore = more?.(all.data?.length ?? 0)
  return (
    <div className="flex h-full min-h-0">
      <aside aria-label={label} className="h-full w-[260px] shrink-0 overflow-y-auto border-r border-line px-3 py-3">
        <h2 className="px-2 pb-2 text-[15px]">{title}</h2>
        <Answer of={all} what="what came so far" none={<p className="px-2 text-soft">{emptyText}</p>}>
          {(came) => (
            <ul>
              {came.map((one) => (
                <li key={one.id} className="border-b border-line">
                  {line(one)}
                </li>
              ))}
            </ul>
          )}
        </Answer>
        {showMore ? (
          <TextButton className="px-2" onClick={showMore}>
            Show more
          </TextButton>
        ) : null}
      </aside>
      <main className="min-w-0 flex-1 overflow-y-auto pt-3">
        <BringTabs />
        <div className="max-w-[720px] px-5 pb-5">{children}</div>
      </main>
    </div>
  )
}

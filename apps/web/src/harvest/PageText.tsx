import type { SiteFinding, SitePage } from '@upper-field/contract'
import { useState } from 'react'
import { TextButton } from '../kit/Button'
import { blocksShown } from './marks'
import type { MarkedText } from './TeachFormat'

/** The text of a page with what was found in it; marking a part of it teaches a format. */
export function PageText(props: {
  page: SitePage
  findings: readonly SiteFinding[]
  chosen: number
  onChoose: (at: number) => void
  onMark: (marked: MarkedText) => void
}) {
  const { page, findings, chosen, onChoose, onMark } = props
  const [showsAll, setShowsAll] = useState(false)
  const blocks = blocksShown(page.blocks, findings, page.leftOut)
  const shown = showsAll ? blocks : blocks.filter(({ isNear }) => isNear)
  const mark = (block: string) => {
    const raw = window.getSelection()?.toString().trim() ?? ''
    if (/\d/.test(raw) && block.includes(raw)) onMark({ block, raw, country: page.country, takes: true })
  }
  return (
    <section aria-label="Text of the page" className="rounded-small border border-line bg-surface px-4 py-3">
      {page.title ? <h2 className="pb-1 text-[15px]">{page.title}</h2> : null}
      {shown.length === 0 ? <p className="text-soft">Nothing on this page looks like a number or an address.</p> : null}
      {shown.map(({ text, segments }, place) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: blocks of a page keep their places, and their texts repeat
        <p key={place} className="whitespace-pre-line py-0.5" onMouseUp={() => mark(text)}>
          {segments.map((part, at) =>
            part.finding !== null ? (
              <button
                // biome-ignore lint/suspicious/noArrayIndexKey: parts of a text keep their places
                key={at}
                type="button"
                className={`num rounded-small px-1 text-[14px] ${findings[part.finding]?.state === 'look' ? 'bg-straw-bg' : 'bg-lichen'} ${part.finding === chosen ? 'outline outline-2 outline-moss' : ''}`}
                onClick={({ detail }) => {
                  onChoose(part.finding ?? 0)
                  // The second click on the same says that it is none.
                  if (detail === 2) onMark({ block: text, raw: part.text, country: page.country, takes: false })
                }}
              >
                {part.text}
                <sup className="pl-0.5 text-[11px]">{part.finding + 1}</sup>
              </button>
            ) : part.isLeftOut ? (
              // biome-ignore lint/suspicious/noArrayIndexKey: parts of a text keep their places
              <span key={at} className="num text-[14px] text-soft line-through">
                {part.text}
              </span>
            ) : (
              // biome-ignore lint/suspicious/noArrayIndexKey: parts of a text keep their places
              <span key={at}>{part.text}</span>
            ),
          )}
        </p>
      ))}
      {blocks.length > shown.length || showsAll ? (
        <TextButton className="pt-1 text-[13px]" aria-expanded={showsAll} onClick={() => setShowsAll(!showsAll)}>
          {showsAll ? 'Only what is near a finding' : `All ${blocks.length} parts of the page`}
        </TextButton>
      ) : null}
    </section>
  )
}

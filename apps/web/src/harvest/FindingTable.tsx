import type { SiteFinding } from '@upper-field/contract'
import { Check, X } from 'lucide-react'
import { useState } from 'react'
import { IconButton } from '../kit/IconButton'
import { phone } from '../words/format'
import { howOf, sureOf } from './harvestText'

/** What tells a finding from the others of its site. */
export const keyOf = ({ kind, value }: SiteFinding): string => `${kind} ${value}`

/** What was found at a site: each value once, with where it stands and how sure that is. */
export function FindingTable(props: {
  findings: readonly SiteFinding[]
  chosen: number
  correcting: number | null
  mayChange: boolean
  onChoose: (at: number) => void
  onTake: () => void
  onDrop: () => void
  onCorrect: (finding: SiteFinding, value: string) => void
  onGiveUp: () => void
}) {
  const { findings, chosen, correcting, mayChange, onChoose, onTake, onDrop, onCorrect, onGiveUp } = props
  if (findings.length === 0) return <p className="border-y border-line py-2 text-soft">Nothing was found here.</p>
  return (
    <table className="w-full text-left">
      <thead className="text-[13px] text-soft">
        <tr className="border-b border-edge">
          <th className="w-8 py-1 font-normal">#</th>
          <th className="font-normal">Value</th>
          <th className="font-normal">How it was found</th>
          <th className="w-24 font-normal">Sure?</th>
          <th className="w-20">
            <span className="sr-only">Decide</span>
          </th>
        </tr>
      </thead>
      <tbody>
        {findings.map((one, at) => (
          <tr
            key={keyOf(one)}
            aria-selected={at === chosen}
            className={`border-b border-line ${at === chosen ? 'bg-lichen' : ''}`}
          >
            <td className="num py-1.5 pl-1">{at + 1}</td>
            <td>
              {correcting === at ? (
                <Correction
                  value={one.corrected ?? one.value}
                  onCorrect={(typed) => onCorrect(one, one.kind === 'number' ? withoutGaps(typed) : typed.trim())}
                  onGiveUp={onGiveUp}
                />
              ) : (
                <button
                  type="button"
                  className={`num text-left ${one.state === 'dropped' ? 'text-soft line-through' : ''}`}
                  title={one.quote}
                  onClick={() => onChoose(at)}
                >
                  {shownValue(one)}
                </button>
              )}
              {one.corrected ? <span className="block text-[12px] text-soft">stands there as {one.raw}</span> : null}
            </td>
            <td className="text-[13px] text-soft">
              {howOf(one.how)}
              {one.pages.length > 1 ? ` · on ${one.pages.length} pages` : ''}
            </td>
            <td className={one.state === 'look' ? 'text-straw-ink' : ''}>{sureOf(one)}</td>
            <td>
              {mayChange && at === chosen ? (
                <span className="flex gap-1">
                  <IconButton label={`Take ${one.value}`} onClick={onTake}>
                    <Check size={15} />
                  </IconButton>
                  <IconButton label={`Drop ${one.value}`} onClick={onDrop}>
                    <X size={15} />
                  </IconButton>
                </span>
              ) : null}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  )
}

const withoutGaps = (number: string): string => number.replace(/[\s()/-]/g, '')

const shownValue = ({ kind, value, corrected }: SiteFinding): string =>
  kind === 'number' ? phone(corrected ?? value) : (corrected ?? value)

function Correction({
  value,
  onCorrect,
  onGiveUp,
}: {
  value: string
  onCorrect: (value: string) => void
  onGiveUp: () => void
}) {
  const [typed, setTyped] = useState(value)
  return (
    <input
      aria-label="The right value"
      // biome-ignore lint/a11y/noAutofocus: it stands where the key that opened it was meant for
      autoFocus
      className="num w-full rounded-small border border-edge bg-surface px-1"
      value={typed}
      onChange={(event) => setTyped(event.target.value)}
      onKeyDown={(event) => {
        if (event.key === 'Enter') onCorrect(typed)
        if (event.key === 'Escape') onGiveUp()
      }}
    />
  )
}

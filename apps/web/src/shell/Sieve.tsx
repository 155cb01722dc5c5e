import type { Piles } from '@upper-field/contract'
import type { FilterField } from '@upper-field/core/split'
import { type ReactNode, useState } from 'react'
import { useReadBatchesQuery } from '../api'
import { TextButton } from '../kit/Button'
import { Glyph } from '../kit/Glyph'
import { useLaneName } from '../split/LaneName'
import { count, countryName } from '../words/format'
import { ADDRESS, EMAIL_KIND, LANE_REASON, LINE, LINE_STATUS, SCOPE, SURE, VERDICT } from '../words/sentences'
import { useListView } from './useListView'
import { usePiles } from './usePiles'

export type Pile = Extract<FilterField, keyof Piles>

const TITLE: Record<string, string> = {
  batch: 'Source',
  country: 'Country',
  verdict: 'Verdict',
  line: 'Line type',
  status: 'Line status',
  lane: 'Lane',
  reason: 'Because',
  is: 'Also',
  sure: 'How sure',
  kind: 'Kind of address',
  address: 'Address',
  call: 'Calls',
  suppressed: 'Suppressed for',
  in: 'Also in the list',
}
const SHOWN = 8

/** Piles with their counts. Choosing some narrows the bench; the same filter can be typed. */
export function Sieve({ piles, children }: { piles: readonly Pile[]; children?: ReactNode }) {
  const view = useListView()
  const { data, sign } = usePiles(view)
  const { data: batches = [] } = useReadBatchesQuery({ params: { listId: view.listId } })
  const names = new Map(batches.map((batch) => [batch.id, batch.name]))
  const laneName = useLaneName()
  const fell = view.filter.piles.fell ?? []
  return (
    <aside aria-label="Sieve" className="h-full w-[212px] shrink-0 overflow-y-auto border-r border-line px-3 py-3">
      {view.text !== '' ? (
        <p className="px-1 pb-2 text-[13px]">
          {fell.length > 0 ? 'Opened from the terrace. ' : ''}
          <TextButton onClick={() => view.setText('')}>Show everyone</TextButton>
        </p>
      ) : null}
      {piles.map((pile) => (
        <PileGroup
          key={pile}
          pile={pile}
          counts={data?.[pile] ?? {}}
          sign={sign}
          nameOf={(value) => (pile === 'lane' ? laneName(value) : pileName(pile, value, names))}
        />
      ))}
      {children}
    </aside>
  )
}

function pileName(pile: Pile, value: string, batches: ReadonlyMap<string, string>): string {
  switch (pile) {
    case 'batch':
      return batches.get(value) ?? 'a batch'
    case 'country':
      return countryName(value)
    case 'verdict':
      return VERDICT[value as keyof typeof VERDICT] ?? value
    case 'line':
      return LINE[value] ?? value
    case 'status':
      return LINE_STATUS[value] ?? value
    case 'reason':
      return LANE_REASON[value as keyof typeof LANE_REASON] ?? value
    case 'sure':
      return SURE[value as keyof typeof SURE] ?? value
    case 'kind':
      return EMAIL_KIND[value as keyof typeof EMAIL_KIND] ?? 'no address'
    case 'call':
      return value === 'now' ? 'may be called now' : value === 'later' ? 'later' : 'no line to call'
    case 'suppressed':
      return SCOPE[value as keyof typeof SCOPE] ?? value
    case 'address':
      return ADDRESS[value as keyof typeof ADDRESS] ?? value
    default:
      return value === 'joined' ? 'joined from several rows' : 'on a shared line'
  }
}

/** Values of one field with their counts; each narrows the filter. */
export function PileGroup({
  pile,
  counts,
  sign,
  nameOf,
}: {
  pile: Pile | 'in'
  counts: Record<string, number>
  sign?: string | undefined
  nameOf: (value: string) => string
}) {
  const view = useListView()
  const [showsAll, setShowsAll] = useState(false)
  const chosen = view.filter.piles[pile] ?? []
  const entries = Object.entries(counts).filter(([value, n]) => n > 0 || chosen.includes(value))
  if (entries.length === 0) return null
  const most = Math.max(1, ...entries.map(([, n]) => n))
  return (
    <section className="pb-4">
      <h3 className="px-1 pb-1">{TITLE[pile]}</h3>
      <ul>
        {entries.slice(0, showsAll ? entries.length : SHOWN).map(([value, n]) => (
          <li key={value}>
            <PileButton
              isChosen={chosen.includes(value)}
              share={n / most}
              n={n}
              sign={sign}
              onClick={() => view.toggle(pile, value)}
            >
              {pile === 'line' ? (
                <span className="pr-1.5">
                  <Glyph type={value} />
                </span>
              ) : null}
              <span className={pile === 'batch' || pile === 'in' ? '' : 'first-letter:uppercase'}>{nameOf(value)}</span>
            </PileButton>
          </li>
        ))}
      </ul>
      {entries.length > SHOWN ? (
        <TextButton className="px-1 pt-1 text-[13px]" aria-expanded={showsAll} onClick={() => setShowsAll(!showsAll)}>
          {showsAll ? 'Fewer' : `${count(entries.length - SHOWN)} more`}
        </TextButton>
      ) : null}
    </section>
  )
}

export function PileButton({
  isChosen,
  share,
  n,
  sign = '',
  onClick,
  children,
}: {
  isChosen: boolean
  share: number
  n: number
  /** Before the count, where it is an estimate. */
  sign?: string | undefined
  onClick: () => void
  children: ReactNode
}) {
  return (
    <button
      type="button"
      aria-pressed={isChosen}
      onClick={onClick}
      className={`relative flex w-full items-center rounded-small px-1 py-1 text-left text-[13.5px] leading-[18px] hover:bg-lichen ${isChosen ? 'bg-lichen font-semibold' : ''}`}
    >
      <span className="flex min-w-0 flex-1 items-center">{children}</span>
      <span className="num pl-2 text-soft">
        {sign}
        {count(n)}
      </span>
      <span
        aria-hidden="true"
        className="absolute bottom-0 left-1 h-0.5 bg-contour"
        style={{ width: `calc(${Math.max(2, share * 100)}% - 8px)` }}
      />
    </button>
  )
}

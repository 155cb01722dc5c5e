import { useReadLaneRulesQuery } from '../api'
import { useListView } from '../shell/useListView'
import { usePiles } from '../shell/usePiles'
import { count } from '../words/format'
import { shownLanes } from './laneList'

const USUAL_COLOR: Readonly<Record<string, string>> = {
  text: 'var(--moss)',
  call: 'color-mix(in srgb, var(--moss) 65%, var(--paper))',
  post: 'color-mix(in srgb, var(--straw) 70%, var(--paper))',
  'ads-only': 'var(--slate)',
  parked: 'var(--edge)',
}
/** Lanes of an operator's own, one lighter than the other. */
const ownColor = (at: number): string => `color-mix(in srgb, var(--moss) ${Math.max(25, 80 - at * 12)}%, var(--slate))`
const HEIGHT = 184
/** A lane is no lower than this: with many of them the drawing grows. */
const LOWEST = 46

/** The lanes as channels fed from one stream. */
export function Lanes() {
  const view = useListView()
  const { data, sign } = usePiles(view)
  const { data: rules } = useReadLaneRulesQuery({ params: { listId: view.listId } })
  const lanes = shownLanes(rules)
  const counts = lanes.map(({ lane }) => data?.lane[lane] ?? 0)
  const height = Math.max(HEIGHT, lanes.length * LOWEST)
  const box = height / lanes.length
  const colorOf = (lane: string, at: number) => USUAL_COLOR[lane] ?? ownColor(at)
  const total = Math.max(
    1,
    counts.reduce((sum, n) => sum + n, 0),
  )
  let from = 8
  return (
    <div className="mb-4 grid shrink-0 grid-cols-[minmax(120px,1fr)_minmax(0,1.6fr)]" style={{ height }}>
      <svg viewBox={`0 0 300 ${height}`} preserveAspectRatio="none" className="size-full" aria-hidden="true">
        {lanes.map(({ lane }, i) => {
          const thick = ((counts[i] ?? 0) / total) * (height - 16)
          const start = from
          from += thick
          const end = i * box + (box - Math.min(thick, box - 8)) / 2
          const endThick = Math.min(thick, box - 8)
          return (
            <path
              key={lane}
              d={`M0 ${start}C150 ${start} 170 ${end} 300 ${end}V${end + endThick}C170 ${end + endThick} 150 ${start + thick} 0 ${start + thick}Z`}
              fill={colorOf(lane, i)}
            />
          )
        })}
      </svg>
      <ol className="flex flex-col justify-between">
        {lanes.map(({ lane, name, why }, i) => (
          <li
            key={lane}
            style={{ height: box - 6, borderLeftColor: colorOf(lane, i) }}
            className="rounded-small border border-l-4 border-line bg-surface"
          >
            <button
              type="button"
              onClick={() => view.toggle('lane', lane)}
              aria-pressed={view.filter.piles.lane?.includes(lane) ?? false}
              className="flex size-full items-center justify-between px-3 text-left hover:bg-hill"
            >
              <span className="min-w-0">
                <span className="block font-heading font-semibold leading-5">{name}</span>
                <span className="block truncate text-[12.5px] leading-4 text-soft">{why}</span>
              </span>
              <span className="flex items-baseline gap-3 pl-3">
                <span className="num text-[16px] font-bold">
                  {sign}
                  {count(counts[i] ?? 0)}
                </span>
                <span className="num w-12 whitespace-nowrap text-right text-[13px] text-soft">
                  {Math.round(((counts[i] ?? 0) / total) * 100)} %
                </span>
              </span>
            </button>
          </li>
        ))}
      </ol>
    </div>
  )
}

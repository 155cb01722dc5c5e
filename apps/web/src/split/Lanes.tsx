import { LANES, type Lane } from '@upper-field/core/split'
import { useReadPilesQuery } from '../api'
import { useListView } from '../shell/useListView'
import { count } from '../words/format'
import { LANE } from '../words/sentences'

const RULE: Record<Lane, string> = {
  text: 'a mobile of their own, not out of service',
  call: 'any line that may be called',
  'ads-only': 'an e-mail',
  parked: 'everyone else',
}
const COLOR: Record<Lane, string> = {
  text: 'var(--moss)',
  call: 'color-mix(in srgb, var(--moss) 65%, var(--paper))',
  'ads-only': 'var(--slate)',
  parked: 'var(--edge)',
}
const HEIGHT = 184
const BOX = HEIGHT / LANES.length

/** The lanes as channels fed from one stream. */
export function Lanes() {
  const view = useListView()
  const { data } = useReadPilesQuery({ params: { listId: view.listId }, query: { filter: view.text } })
  const counts = LANES.map((lane) => data?.lane[lane] ?? 0)
  const total = Math.max(
    1,
    counts.reduce((sum, n) => sum + n, 0),
  )
  let from = 8
  return (
    <div className="mb-4 grid shrink-0 grid-cols-[minmax(120px,1fr)_minmax(0,1.6fr)]" style={{ height: HEIGHT }}>
      <svg viewBox={`0 0 300 ${HEIGHT}`} preserveAspectRatio="none" className="size-full" aria-hidden="true">
        {LANES.map((lane, i) => {
          const thick = ((counts[i] ?? 0) / total) * (HEIGHT - 16)
          const start = from
          from += thick
          const end = i * BOX + (BOX - Math.min(thick, BOX - 8)) / 2
          const endThick = Math.min(thick, BOX - 8)
          return (
            <path
              key={lane}
              d={`M0 ${start}C150 ${start} 170 ${end} 300 ${end}V${end + endThick}C170 ${end + endThick} 150 ${start + thick} 0 ${start + thick}Z`}
              fill={COLOR[lane]}
            />
          )
        })}
      </svg>
      <ol className="flex flex-col justify-between">
        {LANES.map((lane, i) => (
          <li
            key={lane}
            style={{ height: BOX - 6, borderLeftColor: COLOR[lane] }}
            className="rounded-small border border-l-4 border-line bg-surface"
          >
            <button
              type="button"
              onClick={() => view.toggle('lane', lane)}
              aria-pressed={view.filter.piles.lane?.includes(lane) ?? false}
              className="flex size-full items-center justify-between px-3 text-left hover:bg-hill"
            >
              <span className="min-w-0">
                <span className="block font-heading font-semibold leading-5">{LANE[lane]}</span>
                <span className="block truncate text-[12.5px] leading-4 text-soft">{RULE[lane]}</span>
              </span>
              <span className="flex items-baseline gap-3 pl-3">
                <span className="num text-[16px] font-bold">{count(counts[i] ?? 0)}</span>
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

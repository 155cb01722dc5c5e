import type { List, TerraceStep } from '@upper-field/contract'
import type { Riser, Stage } from '@upper-field/core/story'
import { Link } from 'react-router'
import { count, signed } from '../words/format'
import { RISER, STAGE } from '../words/sentences'
import { groundLines, HILL, outline } from './terraceShape'

/** The list's profile across the stages: chart and navigation in one. */
export function Terrace({ list, open }: { list: List; open: Stage | undefined }) {
  const grounds = groundLines(list.terrace)
  const width = HILL.width / list.terrace.length
  const at = list.terrace.findIndex(({ stage }) => stage === open)
  return (
    <nav aria-label="Stages" className="relative shrink-0 border-b border-line" style={{ height: HILL.height }}>
      <svg
        viewBox={`0 0 ${HILL.width} ${HILL.height}`}
        preserveAspectRatio="none"
        className="absolute inset-0 size-full"
        aria-hidden="true"
      >
        <path d={`${outline(grounds)}V${HILL.height}H0Z`} fill="var(--hill)" />
        {[14, 28, 42, 56, 70].map((by) => (
          <path
            key={by}
            d={outline(grounds, by)}
            fill="none"
            stroke="var(--contour)"
            strokeWidth="1"
            vectorEffect="non-scaling-stroke"
          />
        ))}
        {at >= 0 ? <rect x={at * width} y={grounds[at]} width={width} height={HILL.height} fill="var(--moss)" /> : null}
        <path
          d={outline(grounds)}
          fill="none"
          stroke="var(--moss)"
          strokeWidth="2.5"
          vectorEffect="non-scaling-stroke"
        />
      </svg>
      <ol
        className="absolute inset-0 grid"
        style={{ gridTemplateColumns: `repeat(${list.terrace.length}, minmax(0, 1fr))` }}
      >
        {list.terrace.map((step, i) => (
          <Step
            key={step.stage}
            listId={list.id}
            step={step}
            ground={grounds[i] ?? 0}
            isOpen={i === at}
            batches={list.batches}
          />
        ))}
      </ol>
    </nav>
  )
}

function Step({
  listId,
  step,
  ground,
  isOpen,
  batches,
}: {
  listId: string
  step: TerraceStep
  ground: number
  isOpen: boolean
  batches: number
}) {
  const color = isOpen ? 'text-on-moss' : 'text-ink'
  return (
    <li className="relative min-w-0">
      <Link
        to={`/lists/${listId}/${step.stage}`}
        aria-current={isOpen ? 'page' : undefined}
        className="absolute inset-0 px-4 hover:bg-lichen/30"
        style={{ paddingTop: ground - 26 }}
      >
        <span className="block truncate font-heading text-[15px] font-semibold leading-5">{STAGE[step.stage]}</span>
        <span className={`num block pt-2.5 text-[14px] font-bold leading-5 ${color}`}>{count(step.count)}</span>
      </Link>
      <div
        className={`pointer-events-none absolute inset-x-0 truncate px-4 text-[12.5px] leading-[15px] ${color}`}
        style={{ top: ground + 25 }}
      >
        {step.stage === 'bring' ? (
          <span>rows from {batches === 1 ? 'one batch' : `${count(batches)} batches`}</span>
        ) : (
          <Changes listId={listId} step={step} />
        )}
      </div>
    </li>
  )
}

/** What fell or rose on the way to this step; each opens the records it counts. */
function Changes({ listId, step }: { listId: string; step: TerraceStep }) {
  const told = step.changes.filter(({ by }) => by !== 0)
  if (told.length === 0) return <span>{step.count === 0 ? 'nobody here yet' : 'nobody lost'}</span>
  return told.map(({ riser, by }) => (
    <Link
      key={riser}
      to={recordsOf(listId, step.stage, riser)}
      className="pointer-events-auto relative z-10 block truncate hover:underline"
    >
      <span className="num font-semibold">{signed(by)}</span> {RISER[riser]}
    </Link>
  ))
}

const recordsOf = (listId: string, stage: Stage, riser: Riser): string =>
  riser === 'held'
    ? `/lists/${listId}/bring#held`
    : `/lists/${listId}/${stage}?q=${encodeURIComponent(`fell:${riser}`)}`

/** The same profile, small, for a page of lists. */
export function SmallTerrace({ steps }: { steps: readonly TerraceStep[] }) {
  const grounds = groundLines(steps)
  const told = steps.map(({ stage, count: n }) => `${STAGE[stage]} ${count(n)}`).join(', ')
  return (
    <svg
      viewBox={`0 0 ${HILL.width} ${HILL.height}`}
      preserveAspectRatio="none"
      className="h-12 w-full"
      role="img"
      aria-label={told}
    >
      <path d={`${outline(grounds)}V${HILL.height}H0Z`} fill="var(--hill)" />
      <path d={outline(grounds, 24)} fill="none" stroke="var(--contour)" vectorEffect="non-scaling-stroke" />
      <path d={outline(grounds)} fill="none" stroke="var(--moss)" strokeWidth="2" vectorEffect="non-scaling-stroke" />
    </svg>
  )
}

import type { TrailStep } from '@upper-field/contract'
import { useServiceNames } from '../connections/useConnected'
import { STEP_WORD } from './trailText'

/** How each end of a question is drawn: its colour, and how thick the ledge is. */
const DRAWN: Record<TrailStep['state'], { readonly tone: string; readonly color: string; readonly thick: number }> = {
  accepted: { tone: 'font-semibold text-moss', color: 'var(--moss)', thick: 6 },
  'set-aside': { tone: 'text-straw-ink', color: 'var(--straw)', thick: 3 },
  nothing: { tone: 'text-soft', color: 'var(--edge)', thick: 3 },
  failed: { tone: 'text-beet', color: 'var(--beet)', thick: 3 },
  late: { tone: 'text-beet', color: 'var(--beet)', thick: 3 },
  waiting: { tone: 'text-slate', color: 'var(--slate)', thick: 3 },
}

/** The providers that were asked, in turn: a stream that falls from ledge to ledge until it is taken. */
export function Ledges({ steps }: { steps: readonly TrailStep[] }) {
  const named = useServiceNames()
  return (
    <ol className="flex">
      {steps.map(({ provider, state }, at) => {
        const { tone, color, thick } = DRAWN[state]
        return (
          <li key={provider} className="min-w-0 max-w-[84px] flex-1" style={{ paddingTop: Math.min(at, 5) * 2 }}>
            <span className={`block truncate pr-1 text-[12px] leading-4 ${tone}`}>
              {named(provider)}
              <span className="sr-only">: {STEP_WORD[state]}</span>
            </span>
            <Ledge state={state} color={color} thick={thick} isLast={at === steps.length - 1} />
          </li>
        )
      })}
    </ol>
  )
}

function Ledge(props: { state: TrailStep['state']; color: string; thick: number; isLast: boolean }) {
  const { state, color, thick, isLast } = props
  return (
    <svg viewBox="0 0 80 14" preserveAspectRatio="none" className="block h-[13px] w-full" aria-hidden="true">
      <rect x="0" y="2" width="76" height={thick} fill={color} />
      {state === 'set-aside' ? <path d="M60 3C66 3 68 9 67 14H60C61 9 60 5 54 5Z" fill={color} /> : null}
      {state === 'failed' || state === 'late' ? (
        <path d="M64 0L72 8M72 0L64 8" stroke={color} strokeWidth="1.6" fill="none" />
      ) : null}
      {isLast ? null : (
        <path d="M76 3C79 4 78 6 80 7" stroke="var(--slate)" strokeWidth="1" fill="none" opacity="0.6" />
      )}
    </svg>
  )
}

/** How the ledges are to be read. */
export const LedgeLegend = () => (
  <p className="flex flex-wrap gap-x-5 border-t border-line pt-1.5 text-[13px] text-soft">
    <span>
      <span className="font-semibold text-moss">thick ledge</span> taken
    </span>
    <span>
      <span className="text-straw-ink">spilt</span> found, set aside
    </span>
    <span>thin ledge: nothing known</span>
    <span className="text-beet">crossed: failed</span>
    <span className="text-slate">blue: waiting</span>
  </p>
)

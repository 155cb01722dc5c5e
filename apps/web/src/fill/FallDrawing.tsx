import { BOX, dropPath, type Stream, spillPath, thicknessOf } from './fallShape'

interface FallDrawingProps {
  readonly stream: Stream
  readonly next: Stream
  readonly bottom: number
  /** What is drawn off as usable, and what is spilt, as parts of the whole. */
  readonly accepted: number
  readonly aside: number
  /** Nothing has run here yet: it is drawn more faintly. */
  readonly isAhead: boolean
}

/** One fall of the stream: what comes, what is drawn off to the right, what is spilt, and what falls on. */
export function FallDrawing({ stream, next, bottom, accepted, aside, isAhead }: FallDrawingProps) {
  const below = BOX.top + BOX.height
  const right = stream.left + stream.width
  const thick = thicknessOf(accepted)
  const middle = BOX.top + BOX.height / 2
  return (
    <div className="absolute inset-0" style={{ opacity: isAhead ? 0.5 : 1 }}>
      <svg aria-hidden="true" width="100%" height={bottom} className="absolute inset-0">
        <rect x={stream.left} y="0" width={stream.width} height={BOX.top} fill="var(--slate)" opacity="0.4" />
        <path d={dropPath(stream, next, below, bottom)} fill="var(--slate)" opacity="0.28" />
        {aside > 0 ? <path d={spillPath(stream, aside, below)} fill="var(--straw)" /> : null}
      </svg>
      {thick > 0 ? (
        <div className="absolute right-0 h-11" style={{ left: Math.max(right, stream.left + 122), top: middle - 22 }}>
          <svg aria-hidden="true" viewBox="0 0 100 44" preserveAspectRatio="none" className="h-11 w-full">
            <path
              d={`M0 ${22 - thick / 2}L100 ${16 - thick / 2}V${16 + thick / 2}L0 ${22 + thick / 2}Z`}
              fill="var(--moss)"
              opacity="0.85"
            />
          </svg>
        </div>
      ) : null}
    </div>
  )
}

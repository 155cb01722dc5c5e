/** Height of one fall, and of what the stream drops down to at its end, in pixels. */
export const FALL = 74
export const END = 28
/** The name of a provider stands so far down in its fall, in a box so high. */
export const BOX = { top: 22, height: 26 } as const

const LEFT = 8
/** Each fall begins so much further to the right than the one above. */
const STEP = 14
const WIDEST = 112
const THINNEST = 2
/** What is drawn off is as thick as this where everybody is usable. */
const THICKEST = 44

/** The stream at the top of one fall. */
export interface Stream {
  readonly left: number
  readonly width: number
}

/**
 * Where the stream stands at each fall, and below the last one, in pixels from the left.
 * @param parts how much of the whole reaches each fall and runs off at the end, each from 0 to 1
 */
export const streamsOf = (parts: readonly number[]): readonly Stream[] =>
  parts.map((part, at) => ({
    left: LEFT + at * STEP,
    width: part <= 0 ? 0 : Math.max(THINNEST, Math.min(1, part) * WIDEST),
  }))

/** How thick the part is that is drawn off, in pixels. */
export const thicknessOf = (part: number): number => (part <= 0 ? 0 : Math.max(1.5, Math.min(1, part) * THICKEST))

/** The stream from the bottom of a box down to the top of the next fall, as an SVG path. */
export function dropPath(from: Stream, to: Stream, top: number, bottom: number): string {
  const middle = (top + bottom) / 2
  const right = (stream: Stream) => stream.left + stream.width
  return [
    `M${from.left} ${top}`,
    `C${from.left} ${middle} ${to.left} ${middle} ${to.left} ${bottom}`,
    `H${right(to)}`,
    `C${right(to)} ${middle} ${right(from)} ${middle} ${right(from)} ${top}Z`,
  ].join('')
}

/** What was found and not taken, spilt at the right of the stream below a box, as an SVG path. */
export function spillPath(stream: Stream, part: number, top: number): string {
  const thick = Math.max(2, Math.min(1, part) * WIDEST)
  const right = stream.left + stream.width
  return `M${right - thick} ${top}C${right - thick} ${top + 14} ${right - 2} ${top + 16} ${right + 8} ${top + 24}H${right + 8 - thick / 2}C${right - thick - 4} ${top + 18} ${right - thick} ${top + 8} ${right - thick} ${top}Z`
}

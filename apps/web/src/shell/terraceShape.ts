import type { TerraceStep } from '@upper-field/contract'

export const HILL = { width: 1400, height: 148, top: 34, low: 84 } as const

/** Height of each step's ground line, in pixels from the top: the more contacts, the higher. */
export function groundLines(steps: readonly TerraceStep[]): number[] {
  const most = Math.max(1, ...steps.map(({ count }) => count))
  return steps.map(({ count }) => HILL.top + (1 - count / most) * (HILL.low - HILL.top))
}

const SLOPE = 14

/** The outline of the hill, a step for each stage, shifted down by `by` for a contour line. */
export function outline(grounds: readonly number[], by = 0): string {
  const width = HILL.width / grounds.length
  const parts = grounds.map((y, i) => {
    const next = grounds[i + 1]
    const right = (i + 1) * width
    if (next === undefined) return `L${right} ${y + by}`
    const [from, to] = [right - SLOPE, right + SLOPE]
    return `L${from} ${y + by}C${right} ${y + by} ${right} ${next + by} ${to} ${next + by}`
  })
  return `M0 ${(grounds[0] ?? 0) + by}${parts.join('')}`
}

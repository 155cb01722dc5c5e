/** Moments at which somebody may be called again, from now on. */
export interface LaterMoment {
  readonly text: string
  readonly at: string
}

const HOUR = 3_600_000
const MORNING = 9

/** In an hour, this afternoon's end, tomorrow, next week: by the clocks of whoever calls. */
export function laterMoments(now: Date): readonly LaterMoment[] {
  const inHours = (hours: number) => new Date(now.getTime() + hours * HOUR)
  const inDays = (days: number) => {
    const day = new Date(now)
    day.setDate(day.getDate() + days)
    day.setHours(MORNING, 0, 0, 0)
    return day
  }
  return [
    { text: 'in an hour', at: inHours(1).toISOString() },
    { text: 'in three hours', at: inHours(3).toISOString() },
    { text: 'tomorrow', at: inDays(1).toISOString() },
    { text: 'in a week', at: inDays(7).toISOString() },
  ]
}

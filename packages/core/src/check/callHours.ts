/** When people of a country may be called: minutes after midnight, there, and on which days (0 is Sunday). */
export interface CallHours {
  readonly from: number
  readonly to: number
  readonly days: readonly number[]
}

const HOUR = 60
/** What holds until somebody sets it otherwise for a country: working days, nine to six. */
export const DEFAULT_CALL_HOURS: CallHours = { from: 9 * HOUR, to: 18 * HOUR, days: [1, 2, 3, 4, 5] }

/** A moment as the clocks and calendars of one time zone show it. */
export interface LocalTime {
  /** YYYY-MM-DD. */
  readonly date: string
  /** Minutes after midnight. */
  readonly minutes: number
  /** 0 is Sunday. */
  readonly day: number
}

const clocks = new Map<string, Intl.DateTimeFormat>()

/**
 * What the clocks of a time zone show.
 * @param zone IANA name
 * @param at milliseconds since 1970
 */
export function localTime(zone: string, at: number): LocalTime {
  const clock =
    clocks.get(zone) ??
    new Intl.DateTimeFormat('en-CA', {
      timeZone: zone,
      calendar: 'gregory',
      hourCycle: 'h23',
      year: 'numeric',
      month: '2-digit',
      day: '2-digit',
      hour: '2-digit',
      minute: '2-digit',
    })
  clocks.set(zone, clock)
  const parts = new Map(clock.formatToParts(at).map(({ type, value }) => [type, value]))
  const date = `${parts.get('year')}-${parts.get('month')}-${parts.get('day')}`
  return {
    date,
    minutes: Number(parts.get('hour')) * HOUR + Number(parts.get('minute')),
    day: new Date(`${date}T00:00:00Z`).getUTCDay(),
  }
}

export const CALL_STATES = ['now', 'outside-hours', 'not-this-day', 'holiday', 'zone-not-known', 'suppressed'] as const
/** Whether somebody may be called, and why not. */
export type CallState = (typeof CALL_STATES)[number]

/** Where a number is, and what is kept there. */
export interface CallPlace {
  /** IANA names the number may be in: it may be called only where it may be in all of them. */
  readonly zones: readonly string[]
  readonly hours: CallHours
  /** @param date YYYY-MM-DD, there */
  readonly isHoliday: (date: string) => boolean
}

/** Whether a number may be called at a moment. @param at milliseconds since 1970 */
export function mayBeCalled({ zones, hours, isHoliday }: CallPlace, at: number): CallState {
  if (zones.length === 0) return 'zone-not-known'
  const states = zones.map((zone): CallState => {
    const { date, minutes, day } = localTime(zone, at)
    if (isHoliday(date)) return 'holiday'
    if (!hours.days.includes(day)) return 'not-this-day'
    return minutes >= hours.from && minutes < hours.to ? 'now' : 'outside-hours'
  })
  return states.find((state) => state !== 'now') ?? 'now'
}

import type { Book, Pace } from '../http'
import {
  type Account,
  type AudienceState,
  type Change,
  type Line,
  type NetworkRules,
  type NewAudience,
  type Purpose,
  Refused,
  type State,
} from './audience'
import { lineKey, type Matcher } from './matching'

interface Held extends NewAudience {
  readonly id: string
  readonly lines: Map<string, { readonly identifiers: readonly string[]; readonly since: number }>
  readonly applied: Set<string>
  /** Lines of uploads that are not committed yet. */
  readonly uploads: Map<string, Map<string, readonly string[]>>
  readyAt: number | null
  /** Lines that came again while they were there, and removals of lines that were not: there should be none. */
  odd: number
  /** Made from another audience, and how large it is. */
  similarTo: { readonly seed: string; readonly country: string; readonly closeness: number } | null
}

interface Campaign {
  readonly id: string
  readonly account: string
  readonly aim: readonly string[]
  readonly exclude: readonly string[]
  readonly days: number
  readonly daily: number
  readonly at: number
}

type Event = { readonly at: number } & (
  | ({ readonly is: 'made'; readonly id: string } & NewAudience & { readonly similarTo?: Held['similarTo'] })
  | { readonly is: 'upload'; readonly audience: string; readonly upload: string }
  | {
      readonly is: 'part'
      readonly audience: string
      readonly once: string
      readonly change: Change
      readonly lines: readonly Line[]
      readonly upload: string | null
    }
  | { readonly is: 'finished'; readonly audience: string; readonly upload: string | null; readonly readyAt: number }
  | { readonly is: 'removed'; readonly audience: string }
  | ({ readonly is: 'campaign' } & Campaign)
)

const MINUTE = 60_000
const DAY = 86_400_000
/** A campaign reaches about so many of those it may show itself to, and most of them within its first days. */
const REACHED = 0.92

/** A network with its accounts, the audiences it holds, and its own books of what came. */
export class Network {
  private readonly audiences = new Map<string, Held>()
  private readonly campaigns = new Map<string, Campaign>()
  private parts = 0
  /** Days by which its clock is ahead. */
  ahead = 0

  constructor(
    readonly name: string,
    readonly rules: NetworkRules,
    private readonly matcher: Matcher,
    private readonly options: {
      readonly pace: Pace
      readonly faults?: ReadonlySet<string>
      readonly book?: Book | undefined
    },
  ) {
    for (const line of options.book?.lines() ?? []) this.apply(JSON.parse(line) as Event)
  }

  private now(): number {
    return Date.now() + this.ahead * DAY
  }

  private note(event: Event): void {
    this.apply(event)
    this.options.book?.append(JSON.stringify(event))
  }

  /** @throws Refused where the account may not do this */
  private mayUse(accountId: string, purpose: Purpose | 'look'): Account {
    const account = this.rules.accounts.find(({ id }) => id === accountId)
    if (!account) throw new Refused('no-such-account')
    const lack = account.lacks.find((code) => code !== 'exclude-only' || purpose === 'aim' || purpose === 'seed')
    if (lack && purpose !== 'look') throw new Refused(lack)
    return account
  }

  private find(id: string): Held {
    const held = this.options.faults?.has('forgetful') ? undefined : this.audiences.get(id)
    if (!held) throw new Refused('no-such-audience')
    return held
  }

  /** The same asking makes one audience. */
  make(asked: NewAudience, once: string, similarTo: Held['similarTo'] = null): string {
    this.mayUse(asked.account, asked.purpose)
    if (this.rules.mostDays !== null && (asked.keepsDays ?? 0) > this.rules.mostDays) throw new Refused('kept-too-long')
    if (asked.within !== null) this.find(asked.within)
    const id = `${this.name.slice(0, 2)}${shortHash(once)}`
    if (!this.audiences.has(id)) this.note({ is: 'made', at: this.now(), id, ...asked, similarTo })
    return id
  }

  /** Begins an upload, where an audience is replaced whole. */
  upload(audience: string, once: string): string {
    const upload = `up${shortHash(once)}`
    if (!this.find(audience).uploads.has(upload)) this.note({ is: 'upload', at: this.now(), audience, upload })
    return upload
  }

  /** Takes a part once, however often it comes. */
  part(
    audience: string,
    once: string,
    { change, lines, upload = null }: { change: Change; lines: readonly Line[]; upload?: string | null },
  ): number {
    const held = this.find(audience)
    this.mayUse(held.account, held.purpose)
    if (held.applied.has(once)) return lines.length
    if (lines.length > this.rules.mostLinesOfPart) throw new Refused('part-too-large')
    if (this.options.faults?.has('half-refused') && this.parts++ % 2 === 1) throw new Refused('part-unreadable')
    if (lines.some(({ identifiers }) => identifiers.length === 0)) throw new Refused('line-without-identifier')
    if (upload !== null && !held.uploads.has(upload)) throw new Refused('no-such-upload')
    this.note({ is: 'part', at: this.now(), audience, once, change, lines, upload })
    return lines.length
  }

  finish(audience: string, upload: string | null = null): void {
    const held = this.find(audience)
    const lines = upload === null ? held.lines.size : (held.uploads.get(upload)?.size ?? held.lines.size)
    const { least, perThousand } = this.rules.minutes
    const takes = ((least + (perThousand * lines) / 1000) * MINUTE) / this.options.pace.speed
    this.note({ is: 'finished', at: this.now(), audience, upload, readyAt: this.now() + takes })
  }

  remove(audience: string): void {
    this.find(audience)
    this.note({ is: 'removed', at: this.now(), audience })
  }

  stateOf(id: string): AudienceState {
    return this.judge(this.find(id))
  }

  private judge(held: Held): AudienceState {
    const lapsesAt = this.lapseOf(held)
    const told = (state: State, reason: string | null = null): AudienceState => ({
      state,
      reason,
      size: state === 'usable' ? this.toldSize(this.matchedBy(held).size) : null,
      lapsesAt,
    })
    if (held.readyAt === null) return told('received')
    if (this.now() < held.readyAt) return told('matching')
    if (held.similarTo) return told('usable')
    if (held.lines.size < this.rules.fewestLines) return told('refused', 'too-few-lines')
    if (lapsesAt !== null && this.now() >= lapsesAt.getTime()) return told('lapsed')
    if (this.matchedBy(held).size < this.rules.fewestMatched) return told('refused', 'too-few-matched')
    return told('usable')
  }

  /** Everybody lapses by and by: the last of them then. */
  private lapseOf({ keepsDays, lines }: Held): Date | null {
    if (keepsDays === null || lines.size === 0) return null
    let latest = 0
    for (const { since } of lines.values()) latest = Math.max(latest, since)
    return new Date(latest + keepsDays * DAY)
  }

  private toldSize(matched: number): number | null {
    const { toldFrom, roundedTo } = this.rules
    return matched < toldFrom ? null : Math.round(matched / roundedTo) * roundedTo
  }

  /** Accounts that an audience matches. */
  private matchedBy(held: Held): Set<string> {
    if (held.similarTo) return this.similar(held.similarTo)
    const matched = new Set<string>()
    const oldest = held.keepsDays === null ? 0 : this.now() - held.keepsDays * DAY
    for (const { identifiers, since } of held.lines.values()) {
      const account = since < oldest ? undefined : this.matcher.accountOf(identifiers)
      if (account !== undefined) matched.add(account)
    }
    return matched
  }

  /** So many of a country as are close enough: from the tenth to the whole of it. */
  private similar({ seed, country, closeness }: NonNullable<Held['similarTo']>): Set<string> {
    const there = [...this.matcher.countries].filter(([, of]) => of === country).map(([account]) => account)
    const own = this.matchedBy(this.find(seed))
    return new Set(there.filter((account) => !own.has(account)).slice(0, Math.ceil((there.length * closeness) / 10)))
  }

  /** Shows something to those of the audiences; only usable ones can be named. */
  campaign(asked: Omit<Campaign, 'id' | 'at'>, once: string): string {
    this.mayUse(asked.account, asked.aim.length > 0 ? 'aim' : 'exclude')
    for (const audience of [...asked.aim, ...asked.exclude])
      if (this.stateOf(audience).state !== 'usable') throw new Refused('audience-not-usable')
    const id = `go${shortHash(once)}`
    if (!this.campaigns.has(id)) this.note({ is: 'campaign', at: this.now(), id, ...asked })
    return id
  }

  campaignOf(id: string): { isDone: boolean; reach: number; spent: number } {
    const campaign = this.campaigns.get(id)
    if (!campaign) throw new Refused('no-such-campaign')
    const passed = Math.min(campaign.days, ((this.now() - campaign.at) * this.options.pace.speed) / DAY)
    const aimed = new Set(campaign.aim.flatMap((one) => [...this.matchedBy(this.find(one))]))
    for (const one of campaign.exclude) for (const account of this.matchedBy(this.find(one))) aimed.delete(account)
    const share = REACHED * (1 - Math.exp(-3 * passed)) * Math.min(1, campaign.daily / 5)
    return {
      isDone: passed >= campaign.days,
      reach: Math.round(aimed.size * share),
      spent: Number((campaign.daily * passed).toFixed(2)),
    }
  }

  /** The account that a line of ours matches, by the line's cells: for tests that know the truth. */
  accountOfLine(cells: readonly string[]): string | undefined {
    const key = lineKey(cells)
    for (const held of this.audiences.values()) {
      const line = held.lines.get(key)
      if (line) return this.matcher.accountOf(line.identifiers)
    }
    return undefined
  }

  /** Its own books: what it holds, for its page and for tests. */
  books(): readonly {
    readonly id: string
    readonly account: string
    readonly name: string
    readonly lines: number
    readonly keys: readonly string[]
    readonly parts: number
    readonly odd: number
    readonly matched: number
    readonly state: AudienceState
  }[] {
    return [...this.audiences.values()].map((held) => ({
      id: held.id,
      account: held.account,
      name: held.name,
      lines: held.lines.size,
      keys: [...held.lines.keys()],
      parts: held.applied.size,
      odd: held.odd,
      matched: this.matchedBy(held).size,
      state: this.judge(held),
    }))
  }

  private apply(event: Event): void {
    if (event.is === 'campaign') this.campaigns.set(event.id, event)
    else if (event.is === 'made')
      this.audiences.set(event.id, {
        ...event,
        lines: new Map(),
        applied: new Set(),
        uploads: new Map(),
        readyAt: event.similarTo ? event.at : null,
        odd: 0,
        similarTo: event.similarTo ?? null,
      })
    else this.change(event)
  }

  private change(event: Exclude<Event, { is: 'made' | 'campaign' }>): void {
    const held = this.audiences.get(event.audience)
    if (!held) return
    if (event.is === 'removed') this.audiences.delete(event.audience)
    else if (event.is === 'upload') held.uploads.set(event.upload, new Map())
    else if (event.is === 'finished') {
      held.readyAt = event.readyAt
      const whole = event.upload === null ? undefined : held.uploads.get(event.upload)
      if (!whole || event.upload === null) return
      held.lines.clear()
      for (const [key, identifiers] of whole) held.lines.set(key, { identifiers, since: event.at })
      held.uploads.delete(event.upload)
    } else {
      held.applied.add(event.once)
      for (const line of event.lines) takeLine(held, event, line)
    }
  }
}

function takeLine(
  held: Held,
  { change, upload, at }: { change: Change; upload: string | null; at: number },
  { key, identifiers }: Line,
): void {
  const whole = upload === null ? undefined : held.uploads.get(upload)
  if (whole) {
    if (whole.has(key)) held.odd++
    whole.set(key, identifiers)
  } else if (change === 'add') {
    // Where membership lapses, whoever is to stay comes again.
    if (held.lines.has(key) && held.keepsDays === null) held.odd++
    held.lines.set(key, { identifiers, since: at })
  } else if (!held.lines.delete(key)) held.odd++
}

function shortHash(text: string): string {
  let hash = 0x811c9dc5
  for (let i = 0; i < text.length; i++) hash = Math.imul(hash ^ text.charCodeAt(i), 0x01000193)
  let more = hash
  for (let i = text.length; i > 0; i--) more = Math.imul(more ^ text.charCodeAt(i - 1), 0x85ebca6b)
  return `${(hash >>> 0).toString(36)}${(more >>> 0).toString(36)}`
}

import { brotliDecompressSync, gunzipSync, inflateSync } from 'node:zlib'
import { decodePage, siteOf } from '@upper-field/core/harvest'
import { request } from 'undici'
import type { Config } from '../config'
import { OutgoingRefused } from '../connections/outgoing'
import { webAgent } from './webAgent'

/** Why a page could not be read. */
export type PageProblem =
  | 'forbidden'
  | 'no-such-name'
  | 'private-address'
  | 'not-reached'
  | 'certificate'
  | 'too-slow'
  | 'too-large'
  | 'no-page'
  | 'redirects'
  | 'not-there'
  | 'not-allowed'
  | 'site-failed'

export type FetchedPage =
  | { readonly is: 'page'; readonly url: string; readonly html: string }
  /** It leads to another site, whose own rules are asked first. */
  | { readonly is: 'elsewhere'; readonly url: string }
  /** The site asks to be left alone for a while, in seconds. */
  | { readonly is: 'busy'; readonly seconds: number }
  | { readonly is: 'problem'; readonly problem: PageProblem }

export interface Visitor {
  readonly config: Config
  /** Whom a site may write to. */
  readonly contact: string
}

interface Wanted {
  /** What is taken: pages, or any text. */
  readonly takes: RegExp
  readonly bytes: number
  /** False for an address that its site does not want read. */
  allows(url: string): boolean
}

const MOST_REDIRECTS = 5
const USUAL_WAIT = 30
const LONGEST_WAIT = 3600

/** The name under which sites know us, and the one their robots.txt can use. */
export const AGENT = 'UpperFieldPages'
const agentOf = ({ contact }: Visitor): string =>
  `${AGENT}/1.0 (reads what businesses publish about how to reach them; ${contact})`

/**
 * Reads one page: once, within limits, redirects within its site followed as far as its rules allow. Nothing is sent but
 * who asks.
 */
export async function fetchPage(visitor: Visitor, url: string, wanted: Wanted): Promise<FetchedPage> {
  const signal = AbortSignal.timeout(visitor.config.limits.pageSeconds * 1000)
  const seen = new Set<string>()
  let at = url
  try {
    for (let hops = 0; hops <= MOST_REDIRECTS; hops++) {
      if (seen.has(at)) return problem('redirects')
      seen.add(at)
      if (!wanted.allows(at)) return problem('forbidden')
      const answer = await ask(visitor, at, signal)
      const { statusCode: status, headers, body } = answer
      const next = status >= 300 && status < 400 ? headers.location : undefined
      if (next !== undefined) {
        leave(body)
        const target = String(Array.isArray(next) ? next[0] : next)
        if (!URL.canParse(target, at)) return problem('redirects')
        const to = new URL(target, at)
        if (!/^https?:$/.test(to.protocol)) return problem('redirects')
        if (siteOf(to.href) !== siteOf(at)) return { is: 'elsewhere', url: to.href }
        at = to.href
        continue
      }
      if (status === 200) return await read(answer, at, wanted)
      leave(body)
      return asProblem(status, headers['retry-after'])
    }
    return problem('redirects')
  } catch (error) {
    return problem(signal.aborted ? 'too-slow' : reasonOf(error))
  }
}

const problem = (why: PageProblem): FetchedPage => ({ is: 'problem', problem: why })

const ask = (visitor: Visitor, url: string, signal: AbortSignal) =>
  request(url, {
    dispatcher: webAgent(visitor.config),
    signal,
    headers: {
      'user-agent': agentOf(visitor),
      accept: 'text/html,application/xhtml+xml,text/plain;q=0.8',
      'accept-encoding': 'gzip, deflate, br',
    },
  })

type Answer = Awaited<ReturnType<typeof ask>>

/** What still comes is not wanted; that it is cut off is no failure. */
function leave(body: Answer['body']): void {
  body.on('error', () => {})
  body.destroy()
}

async function read({ headers, body }: Answer, url: string, wanted: Wanted): Promise<FetchedPage> {
  const type = String(headers['content-type'] ?? '')
  if (!wanted.takes.test(type)) {
    leave(body)
    return problem('no-page')
  }
  const parts: Buffer[] = []
  let size = 0
  for await (const part of body as AsyncIterable<Buffer>) {
    size += part.length
    if (size > wanted.bytes) {
      leave(body)
      return problem('too-large')
    }
    parts.push(part)
  }
  const bytes = unpacked(Buffer.concat(parts), String(headers['content-encoding'] ?? ''), wanted.bytes)
  if (bytes === null) return problem('too-large')
  const told = /charset=["']?([a-z0-9_-]+)/i.exec(type)?.[1] ?? null
  // NUL is no letter of any page, and the database has no place for it.
  return { is: 'page', url, html: decodePage(bytes, told).replaceAll('\0', '') }
}

/** What was packed for the way; null where it is larger than is taken. Throws where it cannot be unpacked. */
function unpacked(bytes: Buffer, encoding: string, most: number): Buffer | null {
  const options = { maxOutputLength: most }
  try {
    if (/gzip/.test(encoding)) return gunzipSync(bytes, options)
    if (/br/.test(encoding)) return brotliDecompressSync(bytes, options)
    return /deflate/.test(encoding) ? inflateSync(bytes, options) : bytes
  } catch (error) {
    if ((error as { code?: string }).code === 'ERR_BUFFER_TOO_LARGE') return null
    throw error
  }
}

function asProblem(status: number, retryAfter: string | string[] | undefined): FetchedPage {
  if (status === 429 || status === 503) return { is: 'busy', seconds: waitOf(String(retryAfter ?? '')) }
  if (status === 401 || status === 403) return problem('not-allowed')
  return problem(status >= 500 ? 'site-failed' : 'not-there')
}

/** Seconds, or a date (RFC 9110, section 10.2.3). */
function waitOf(told: string): number {
  const seconds = /^\d+$/.test(told) ? Number(told) : (Date.parse(told) - Date.now()) / 1000
  return Math.min(LONGEST_WAIT, Math.max(1, Number.isFinite(seconds) ? Math.ceil(seconds) : USUAL_WAIT))
}

const UNKNOWN_NAME = new Set(['ENOTFOUND', 'EAI_AGAIN', 'ENODATA'])

function reasonOf(error: unknown): PageProblem {
  for (let one = error as { code?: string; cause?: unknown } | undefined; one; one = one.cause as typeof one) {
    if (one instanceof OutgoingRefused) return one.reason === 'private-address' ? 'private-address' : 'no-such-name'
    const code = one.code ?? ''
    if (UNKNOWN_NAME.has(code)) return 'no-such-name'
    if (/CERT|SELF_SIGNED|ALTNAME|UNABLE_TO_VERIFY|SSL|TLS/.test(code)) return 'certificate'
  }
  return 'not-reached'
}

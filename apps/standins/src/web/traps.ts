import { setTimeout as sleep } from 'node:timers/promises'
import type { World } from '../world'

/** A site that is no ordinary one: how it answers a path, and what is true about it. */
export interface Trap {
  readonly host: string
  readonly robots: string | null
  /** Lines that can be found without doing what one must not. */
  readonly numbers: readonly string[]
  answer(path: string, request: { readonly nth: number; readonly pace: number }): Promise<Response> | Response
}

const html = (body: string, init: ResponseInit & { headers?: Record<string, string> } = {}): Response =>
  new Response(`<!doctype html><html lang="en"><body>${body}</body></html>`, {
    ...init,
    headers: { 'content-type': 'text/html; charset=utf-8', ...init.headers },
  })
const moved = (location: string): Response => new Response(null, { status: 302, headers: { location } })
const gone = (): Response => html('<p>Nothing here.</p>', { status: 404 })

/** Sites that try a reader's patience and manners. Their lines are those of people nobody else's site shows. */
export function trapsOf(world: World): readonly Trap[] {
  const lines = world.companies.slice(-12).map(({ switchboard }) => switchboard.e164)
  const line = (at: number): string => lines[at] ?? ''
  const told = (at: number) => `<p>Telephone ${line(at)}</p>`
  const plain = (at: number, more = '') => html(`<h1>Here we are</h1>${told(at)}${more}`)
  return [
    { host: 'closed-gate.example', robots: 'User-agent: *\nDisallow: /\n', numbers: [], answer: () => plain(0) },
    {
      host: 'slow-kettle.example',
      robots: 'User-agent: *\nCrawl-delay: 2\n',
      numbers: [line(1)],
      answer: async (path, { pace }) => {
        await sleep(2500 / pace)
        return path === '/' ? html('<a href="/contact">Contact</a>') : plain(1)
      },
    },
    {
      host: 'round-about.example',
      robots: null,
      numbers: [],
      answer: (path) => moved(path === '/' ? '/again' : '/'),
    },
    {
      host: 'back-door.example',
      robots: null,
      numbers: [line(2)],
      answer: (path) => {
        if (path === '/') return plain(2, '<a href="/contact">Contact</a> <a href="/about">About us</a>')
        return moved(path === '/contact' ? 'http://127.0.0.1:1/' : 'http://10.20.30.40/secret')
      },
    },
    {
      host: 'long-road.example',
      robots: null,
      numbers: [line(3)],
      answer: (path) => (path === '/endless-contact' ? endless() : plain(3, '<a href="/endless-contact">Contact</a>')),
    },
    {
      host: 'almanac.example',
      robots: null,
      numbers: [line(4)],
      answer: (path) => {
        const month = Number(/month=(\d+)/.exec(path)?.[1] ?? 0)
        return html(
          `${month === 0 ? told(4) : ''}<a href="/calendar?month=${month + 1}">Next month</a> <a href="/contact?month=${month + 1}">Contact</a>`,
        )
      },
    },
    {
      host: 'busy-counter.example',
      robots: null,
      numbers: [line(5)],
      answer: (_, { nth }) =>
        nth === 1 ? html('<p>Too many.</p>', { status: 429, headers: { 'retry-after': '1' } }) : plain(5),
    },
    {
      host: 'heavy-trunk.example',
      robots: null,
      numbers: [],
      answer: heavy,
    },
    {
      host: 'old-letters.example',
      robots: null,
      numbers: [line(6)],
      answer: (path) =>
        path === '/'
          ? new Response(
              Buffer.from(`<html><body><p>Caf\u00e9 \u2013 T\u00e9l\u00e9phone ${line(6)}</p></body></html>`, 'latin1'),
              {
                headers: { 'content-type': 'text/html' },
              },
            )
          : gone(),
    },
    {
      host: 'paper-only.example',
      robots: null,
      numbers: [],
      answer: () => new Response('%PDF-1.7', { headers: { 'content-type': 'application/pdf' } }),
    },
    {
      host: 'broken-step.example',
      robots: null,
      numbers: [],
      answer: () => html('<p>Out of order.</p>', { status: 500 }),
    },
  ]
}

/** A page of 50 MB. */
function heavy(): Response {
  const bytes = new TextEncoder().encode('x'.repeat(100_000))
  let left = 500
  return new Response(
    new ReadableStream({
      pull(controller) {
        if (left-- > 0) controller.enqueue(bytes)
        else controller.close()
      },
    }),
    { headers: { 'content-type': 'text/html; charset=utf-8' } },
  )
}

/** A page that never ends, however long one reads. */
function endless(): Response {
  const bytes = new TextEncoder().encode('<p>and on and on</p>'.repeat(200))
  return new Response(
    new ReadableStream({
      async pull(controller) {
        await sleep(5)
        controller.enqueue(bytes)
      },
    }),
    { headers: { 'content-type': 'text/html; charset=utf-8' } },
  )
}

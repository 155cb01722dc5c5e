import type { World } from '../world'
import { sitesOf } from './sites'
import { trapsOf } from './traps'

/** One look at the small web. */
export interface Visit {
  readonly host: string
  readonly path: string
  readonly agent: string
  /** In milliseconds since 1970. */
  readonly at: number
  /** How many were open at this host when it began, with itself. */
  readonly open: number
}

/** The small web: businesses with their sites, and sites that are none. */
export interface SmallWeb {
  readonly hosts: readonly string[]
  /** Every look at it, robots.txt too. */
  readonly visits: readonly Visit[]
  /** What can be found by whoever keeps to the rules: E.164 by host. */
  readonly truth: ReadonlyMap<string, readonly string[]>
  readonly emails: ReadonlyMap<string, readonly string[]>
  /** Answers a request for one of its hosts; null where the host is none of them. */
  answer(request: Request, host: string): Promise<Response> | null
}

interface Host {
  readonly robots: string | null
  page(path: string, nth: number): Promise<Response> | Response
}

/** @param pace how much quicker than life its slow pages are */
export function createWeb(world: World, pace: { readonly speed: number }): SmallWeb {
  const sites = sitesOf(world)
  const traps = trapsOf(world)
  const hosts = new Map<string, Host>([
    ...sites.map(({ host, robots, pages }): [string, Host] => {
      const byPath = new Map(pages.map(({ path, html }) => [path, html]))
      return [host, { robots, page: (path) => asPage(byPath.get(path.replace(/\?.*$/, ''))) }]
    }),
    ...traps.map(({ host, robots, answer }): [string, Host] => [
      host,
      { robots, page: (path, nth) => answer(path, { nth, pace: pace.speed }) },
    ]),
  ])
  const visits: Visit[] = []
  const open = new Map<string, number>()

  async function look(host: string, { robots, page }: Host, request: Request): Promise<Response> {
    const { pathname, search } = new URL(request.url)
    const path = `${pathname}${search}`
    open.set(host, (open.get(host) ?? 0) + 1)
    const agent = request.headers.get('user-agent') ?? ''
    visits.push({ host, path, agent, at: Date.now(), open: open.get(host) ?? 1 })
    try {
      if (path === '/robots.txt')
        return robots === null
          ? new Response('', { status: 404 })
          : new Response(robots, { headers: { 'content-type': 'text/plain' } })
      return await page(path, visits.filter((one) => one.host === host && one.path === path).length)
    } finally {
      open.set(host, (open.get(host) ?? 1) - 1)
    }
  }

  return {
    hosts: [...hosts.keys()],
    visits,
    truth: new Map([...sites, ...traps].map(({ host, numbers }) => [host, [...new Set(numbers)]])),
    emails: new Map(sites.map(({ host, emails }) => [host, emails])),
    answer: (request, host) => {
      const found = hosts.get(host)
      return found ? look(host, found, request) : null
    },
  }
}

const asPage = (html: string | undefined): Response =>
  html === undefined
    ? new Response('<p>Nothing here.</p>', { status: 404, headers: { 'content-type': 'text/html' } })
    : new Response(html, { headers: { 'content-type': 'text/html; charset=utf-8' } })

import {
  type BodyOf,
  type Endpoint,
  type EndpointName,
  endpoints,
  type ParamsOf,
  type QueryOf,
  type ResponseOf,
} from './endpoints'

export interface CallInput<N extends EndpointName> {
  readonly params?: ParamsOf<N>
  readonly query?: QueryOf<N>
  readonly body?: BodyOf<N>
}

/** Path and query of a call, below the address of the application. */
export function addressOf<N extends EndpointName>(
  name: N,
  { params = {}, query = {} }: { params?: object; query?: object } = {},
): string {
  const endpoint: Endpoint = endpoints[name]
  const path = endpoint.path.replace(/\{(\w+)\}/g, (_, key: string) =>
    encodeURIComponent(String((params as Record<string, unknown>)[key] ?? '')),
  )
  const search = new URLSearchParams(
    Object.entries(query)
      .filter(([, value]) => value !== undefined && value !== '')
      .map(([key, value]): [string, string] => [key, String(value)]),
  )
  return `/api/v1${path}${search.size > 0 ? `?${search}` : ''}`
}

export class CallFailed extends Error {
  constructor(
    readonly status: number,
    readonly code: string,
    detail: string,
  ) {
    super(detail)
  }
}

export interface ApiClient {
  call<N extends EndpointName>(name: N, input?: CallInput<N>, headers?: Record<string, string>): Promise<ResponseOf<N>>
  /** For calls that take or give files. */
  raw(
    name: EndpointName,
    input: { params?: object; query?: object; body?: BodyInit; signal?: AbortSignal },
  ): Promise<Response>
}

type BodyInit = NonNullable<Parameters<typeof fetch>[1]>['body']

/**
 * A typed client for programs: scripts, tests, benches. Keeps the session's cookie. Throws CallFailed.
 * @param always headers of every call, such as the key of a program
 */
export function createClient(baseUrl: string, session = '', always: Readonly<Record<string, string>> = {}): ApiClient {
  let cookie = session
  const send = async (path: string, init: NonNullable<Parameters<typeof fetch>[1]>): Promise<Response> => {
    const response = await fetch(baseUrl + path, {
      ...init,
      headers: { ...always, ...(init.headers as Record<string, string>), cookie, origin: baseUrl },
    })
    const set = response.headers.getSetCookie().map((line) => line.split(';')[0])
    if (set.length > 0) cookie = set.join('; ')
    return response
  }
  return {
    call: async (name, input = {}, headers = {}) => {
      const body = input.body === undefined ? {} : { body: JSON.stringify(input.body) }
      const response = await send(addressOf(name, input), {
        method: endpoints[name].method.toUpperCase(),
        headers: { 'content-type': 'application/json', ...headers },
        ...body,
      })
      if (!response.ok) {
        const problem = (await response.json().catch(() => ({}))) as { code?: string; detail?: string }
        throw new CallFailed(response.status, problem.code ?? 'unknown', problem.detail ?? response.statusText)
      }
      return (await response.json()) as never
    },
    raw: (name, { params, query, body, signal }) =>
      send(addressOf(name, { ...(params ? { params } : {}), ...(query ? { query } : {}) }), {
        method: endpoints[name].method.toUpperCase(),
        ...(body ? { body, duplex: 'half' } : {}),
        ...(signal ? { signal } : {}),
      } as NonNullable<Parameters<typeof fetch>[1]>),
  }
}

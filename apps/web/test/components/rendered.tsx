import { configure, type RenderResult, render } from '@testing-library/react'
import { type UserEvent, userEvent } from '@testing-library/user-event'
import { addressOf, type EndpointName, endpoints, type List, type ResponseOf } from '@upper-field/contract'
import type { ReactElement } from 'react'
import { Provider } from 'react-redux'
import { MemoryRouter, Outlet, Route, Routes, useLocation } from 'react-router'
import { newStore } from '../../src/store'

// A busy machine may take many times as long as a quiet one.
configure({ asyncUtilTimeout: 60_000 })

/** What a call is answered, by its name; a function is asked at every call. */
export type Answers = {
  readonly [N in EndpointName]?:
    | ResponseOf<N>
    | ((sent: Sent) => ResponseOf<N> | Refusal | Promise<ResponseOf<N> | Refusal>)
}

export interface Sent {
  readonly name: EndpointName
  readonly path: string
  /** Behind the `?`. */
  readonly search: URLSearchParams
  readonly body: unknown
}

/** What the server says no with. */
export class Refusal {
  constructor(
    readonly status: number,
    readonly code: string,
    readonly detail: string,
  ) {}
}

export const OPERATOR = {
  id: 'p1',
  name: 'Maren Oldershaw',
  email: 'maren@wrenfold.example',
  role: 'operator',
} as const

export interface Rendered extends RenderResult {
  readonly user: UserEvent
  /** Every call the view has made, in order, but for those that nearly every part makes. */
  readonly sent: readonly Sent[]
  /** Where the view has gone. */
  address(): string
}

/** What nearly every part asks for, where nothing else is said. */
const USUAL: Answers = { readColumns: [], readBatches: [] }

/**
 * Shows part of the client on a list, with a server that answers as told. Answers are held against the contract, so that
 * no test rests on what the server would never say.
 * @param at what stands behind the `?` of the address
 * @param within the list the part is shown in, and the end of its address, where it asks for those
 */
export function rendered(
  part: ReactElement,
  answers: Answers,
  at = '',
  { list = null, path = '', end = '' }: { list?: List | null; path?: string; end?: string } = {},
): Rendered {
  const sent: Sent[] = []
  globalThis.fetch = (async (url: string, { method = 'GET', body }: { method?: string; body?: string } = {}) => {
    const call = asSent(url, method, body)
    if (!(call.name in USUAL)) sent.push(call)
    return answerOf(call, { ...USUAL, ...answers })
  }) as unknown as typeof fetch
  let place = ''
  const Where = () => {
    const { pathname, search } = useLocation()
    place = pathname + decodeURIComponent(search.replaceAll('+', ' '))
    return null
  }
  const shown = render(
    <Provider store={newStore()}>
      <MemoryRouter initialEntries={[`/lists/l1${end}${at === '' ? '' : `?${at}`}`]}>
        <Where />
        <Routes>
          <Route element={<Outlet context={list} />}>
            <Route path={`/lists/:listId${path}`} element={part} />
          </Route>
          <Route path="*" element={null} />
        </Routes>
      </MemoryRouter>
    </Provider>,
  )
  return { ...shown, user: userEvent.setup(), sent, address: () => place }
}

/** The call an address and a method mean. */
function asSent(url: string, method: string, body: string | undefined): Sent {
  const { pathname, searchParams } = new URL(url, 'http://upper-field.example')
  const names = Object.keys(endpoints) as EndpointName[]
  const name = names.find(
    (one) => endpoints[one].method.toUpperCase() === method && pathOf(one).test(decodeURIComponent(pathname)),
  )
  if (!name) throw new Error(`The contract has no ${method} ${pathname}.`)
  return { name, path: pathname, search: searchParams, body: body === undefined ? null : JSON.parse(body) }
}

const pathOf = (name: EndpointName): RegExp => {
  const start = addressOf('readMe').replace(endpoints.readMe.path, '')
  return new RegExp(`^${start}${endpoints[name].path.replace(/\{\w+\}/g, '[^/]+')}$`)
}

async function answerOf(sent: Sent, answers: Answers) {
  const told = answers[sent.name] as unknown
  if (told === undefined) throw new Error(`Nobody said what ${sent.name} is answered.`)
  const answer = typeof told === 'function' ? await told(sent) : told
  if (answer instanceof Refusal)
    return { ok: false, status: answer.status, json: async () => ({ code: answer.code, detail: answer.detail }) }
  const { response } = endpoints[sent.name]
  if (typeof response === 'string')
    throw new Error(`${sent.name} is answered with a file, which no part shown here reads.`)
  return { ok: true, status: 200, json: async () => response.parse(answer) }
}

import { describe, expect, it } from '@jest/globals'
import { addressOf, endpoints, openApiDocument } from '../src'

/** What everybody may change: what is theirs alone. */
const OF_ONES_OWN = new Map([
  ['changePassword', 'put'],
  ['endSession', 'delete'],
  // Changes nothing: what is pasted is about people, so it stands in the body and not in an address.
  ['lookUp', 'post'],
  ['judge', 'post'],
  ['makeCalendar', 'post'],
  ['removeCalendar', 'delete'],
])

describe('the API', () => {
  const document = openApiDocument() as {
    paths: Record<string, Record<string, { operationId: string; 'x-role': string }>>
  }
  const operations = Object.values(document.paths).flatMap((path) => Object.values(path))

  it('describes every endpoint, once', () => {
    expect(operations.map(({ operationId }) => operationId).sort()).toEqual(Object.keys(endpoints).sort())
  })

  it('lets a viewer change nothing and download no contact data', () => {
    const forViewers = Object.entries(endpoints).filter(([, { role }]) => role === 'viewer')
    expect(forViewers.length).toBeGreaterThan(10)
    for (const [name, endpoint] of forViewers) {
      expect([name, endpoint.method]).toEqual([name, OF_ONES_OWN.get(name) ?? 'get'])
      expect([name, endpoint.response]).not.toEqual([name, 'file'])
    }
  })

  it('keeps an idempotency key for every call that spends or makes', () => {
    for (const name of ['startCheck', 'startFill', 'makeList', 'makeBatch', 'makeEdition'] as const)
      expect(endpoints[name].isIdempotent).toBe(true)
  })

  it('writes addresses with their values escaped', () => {
    expect(addressOf('readContacts', { params: { listId: 'a/b' }, query: { filter: 'x y', cursor: undefined } })).toBe(
      '/api/v1/lists/a%2Fb/contacts?filter=x+y',
    )
  })
})

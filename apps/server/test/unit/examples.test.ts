import { describe, expect, it } from '@jest/globals'
import { type Endpoint, endpoints, openApiDocument } from '@upper-field/contract'

interface Operation {
  readonly operationId: string
  readonly requestBody?: { readonly content: Readonly<Record<string, { readonly example?: unknown }>> }
  readonly responses: { readonly 200: { readonly content: Readonly<Record<string, { readonly example?: unknown }>> } }
  readonly parameters: readonly {
    readonly name: string
    readonly in: 'path' | 'query' | 'header'
    readonly example?: unknown
  }[]
}
const { paths } = openApiDocument() as { paths: Record<string, Record<string, Operation>> }
const operations = Object.values(paths).flatMap((path) => Object.values(path))
const endpointOf = ({ operationId }: Operation): Endpoint => endpoints[operationId as keyof typeof endpoints]
const problemsOf = (result: {
  success: boolean
  error?: { issues: readonly { path: PropertyKey[]; message: string }[] }
}) => (result.success ? [] : (result.error?.issues.map(({ path, message }) => `${path.join('.')}: ${message}`) ?? []))

describe('every call of the OpenAPI document', () => {
  it.each(operations.map((one) => [one.operationId, one] as const))(
    '%s has an example that is right',
    (_, operation) => {
      const endpoint = endpointOf(operation)
      const json = operation.requestBody?.content['application/json']
      if (json && endpoint.body !== null && endpoint.body !== 'file')
        expect(problemsOf(endpoint.body.safeParse(json.example))).toEqual([])
      const given = (place: 'path' | 'query') =>
        Object.fromEntries(
          operation.parameters.flatMap((one) => (one.in === place ? [[one.name, String(one.example)] as const] : [])),
        )
      expect(problemsOf(endpoint.params.safeParse(given('path')))).toEqual([])
      const answer = operation.responses[200].content['application/json']
      if (answer && typeof endpoint.response !== 'string') expect(answer.example).toBeDefined()
    },
  )
})

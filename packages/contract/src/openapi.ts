import { z } from 'zod'
import { type Endpoint, type EndpointName, endpoints } from './endpoints'
import { BODY_EXAMPLES, exampleOf, type Schema } from './examples'
import { ProblemDetails } from './people'

/**
 * The API as an OpenAPI 3.1 document, generated from the same schemas that check every call.
 * @param of the calls that other programs may make alone, or all of them
 */
export function openApiDocument(of: 'programs' | 'all' = 'all'): Record<string, unknown> {
  const paths: Record<string, Record<string, unknown>> = {}
  for (const [name, one] of Object.entries(endpoints) as [string, Endpoint][]) {
    if (of === 'programs' && one.scope === null) continue
    const path = `/api/v1${one.path}`
    paths[path] = { ...paths[path], [one.method]: operation(name, one) }
  }
  return {
    openapi: '3.1.0',
    info: {
      title: 'Upper Field',
      version: '1',
      description:
        'Everything the application does. People call it in their session; other programs with a key, as far as its scopes go (`x-scope`). Every refusal is told as RFC 9457 says.',
    },
    components: { securitySchemes: { key: { type: 'http', scheme: 'bearer' } } },
    paths,
  }
}

function operation(name: string, one: Endpoint): Record<string, unknown> {
  return {
    operationId: name,
    summary: one.summary,
    'x-role': one.role ?? 'everybody',
    ...(one.scope
      ? { 'x-scope': one.scope, security: [{ key: [] }], tags: ['for programs'] }
      : { tags: ['for people'] }),
    parameters: [...parameters('path', one.params), ...parameters('query', one.query), ...idempotency(one)],
    ...(one.body
      ? { requestBody: { required: true, content: content(one.body, BODY_EXAMPLES[name as EndpointName]) } }
      : {}),
    responses: {
      '200': { description: 'Done', content: content(one.response) },
      default: {
        description: 'RFC 9457',
        content: { 'application/problem+json': { schema: schemaOf(ProblemDetails) } },
      },
    },
  }
}

const schemaOf = (type: z.ZodType) => z.toJSONSchema(type, { io: 'input', unrepresentable: 'any' }) as Schema

function content(type: z.ZodType | 'file' | 'events', told?: unknown): Record<string, unknown> {
  if (type === 'file') return { 'application/octet-stream': { schema: { type: 'string', format: 'binary' } } }
  if (type === 'events') return { 'text/event-stream': { schema: { type: 'string' } } }
  const schema = schemaOf(type)
  return { 'application/json': { schema, example: told ?? exampleOf(schema) } }
}

function parameters(place: 'path' | 'query', shape: z.ZodObject): unknown[] {
  return Object.entries(shape.shape).map(([name, type]) => ({
    name,
    in: place,
    required: place === 'path' || !(type as z.ZodType).safeParse(undefined).success,
    schema: schemaOf(type as z.ZodType),
    example: exampleOf(schemaOf(type as z.ZodType), name),
  }))
}

const idempotency = (one: Endpoint): unknown[] =>
  one.isIdempotent
    ? [{ name: 'Idempotency-Key', in: 'header', required: false, schema: { type: 'string', maxLength: 100 } }]
    : []

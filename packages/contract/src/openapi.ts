import { z } from 'zod'
import { type Endpoint, endpoints } from './endpoints'
import { ProblemDetails } from './people'

/** The API as an OpenAPI 3.1 document, generated from the same schemas that check every call. */
export function openApiDocument(): Record<string, unknown> {
  const paths: Record<string, Record<string, unknown>> = {}
  for (const [name, one] of Object.entries(endpoints) as [string, Endpoint][]) {
    const path = `/api/v1${one.path}`
    paths[path] = { ...paths[path], [one.method]: operation(name, one) }
  }
  return { openapi: '3.1.0', info: { title: 'Upper Field', version: '1' }, paths }
}

function operation(name: string, one: Endpoint): Record<string, unknown> {
  return {
    operationId: name,
    summary: one.summary,
    'x-role': one.role ?? 'everybody',
    parameters: [...parameters('path', one.params), ...parameters('query', one.query), ...idempotency(one)],
    ...(one.body ? { requestBody: { required: true, content: content(one.body) } } : {}),
    responses: {
      '200': { description: 'Done', content: content(one.response) },
      default: {
        description: 'RFC 9457',
        content: { 'application/problem+json': { schema: schemaOf(ProblemDetails) } },
      },
    },
  }
}

const schemaOf = (type: z.ZodType): unknown => z.toJSONSchema(type, { io: 'input', unrepresentable: 'any' })

function content(type: z.ZodType | 'file' | 'events'): Record<string, unknown> {
  if (type === 'file') return { 'application/octet-stream': { schema: { type: 'string', format: 'binary' } } }
  if (type === 'events') return { 'text/event-stream': { schema: { type: 'string' } } }
  return { 'application/json': { schema: schemaOf(type) } }
}

function parameters(place: 'path' | 'query', shape: z.ZodObject): unknown[] {
  return Object.entries(shape.shape).map(([name, type]) => ({
    name,
    in: place,
    required: place === 'path' || !(type as z.ZodType).safeParse(undefined).success,
    schema: schemaOf(type as z.ZodType),
  }))
}

const idempotency = (one: Endpoint): unknown[] =>
  one.isIdempotent
    ? [{ name: 'Idempotency-Key', in: 'header', required: false, schema: { type: 'string', maxLength: 100 } }]
    : []

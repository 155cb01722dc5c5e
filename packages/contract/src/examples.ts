import type { EndpointName } from './endpoints'

/** A JSON Schema, as far as examples are made from it. */
export interface Schema {
  readonly const?: unknown
  readonly default?: unknown
  readonly enum?: readonly unknown[]
  readonly anyOf?: readonly Schema[]
  readonly oneOf?: readonly Schema[]
  readonly allOf?: readonly Schema[]
  readonly type?: string
  readonly format?: string
  readonly properties?: Readonly<Record<string, Schema>>
  readonly required?: readonly string[]
  readonly propertyNames?: Schema
  readonly additionalProperties?: Schema | boolean
  readonly items?: Schema
  readonly minItems?: number
  readonly minimum?: number
  readonly exclusiveMinimum?: number
  readonly maximum?: number
  readonly minLength?: number
  readonly maxLength?: number
}

const FORMATS: Readonly<Record<string, string>> = {
  uuid: '4f1c2a9e-7d1b-4f0e-9a53-0b6a5f7a2c11',
  date: '2026-11-28',
  'date-time': '2026-11-28T09:30:00Z',
  email: 'maren@causeway.example',
  uri: 'https://causeway.example/told',
}
/** Values for names that say what they are: made up, as everybody in the demo is. */
const NAMES: Readonly<Record<string, unknown>> = {
  name: 'Autumn terraces',
  fullName: 'Maren Oldershaw',
  company: 'Causeway Guest House',
  country: 'GB',
  defaultCountry: 'GB',
  e164: '+447911204481',
  number: '+447911204481',
  email: 'maren@causeway.example',
  value: '+447911204481',
  filter: 'country:GB line:mobile',
  city: 'Kelso',
  site: 'causeway.example',
  text: '+447911204481',
  reason: 'asked not to be called',
  password: 'a long one of several words',
  delimiter: ',',
  sha256: 'e3b0c44298fc1c149afbf4c8996fb92427ae41e4649b934ca495991b7852b855',
  secret: 'a-secret-of-forty-letters-and-digits',
  fingerprint: 'e3b0c44298fc1c149afbf4c8996fb92427ae41e4649b934ca495991b7852b855-4096',
}

/**
 * An example that fits a JSON Schema: what is named for what it holds gets such a value, everything else the simplest
 * that is allowed.
 */
export function exampleOf(schema: Schema, name = '', depth = 0): unknown {
  if (schema.const !== undefined) return schema.const
  if (schema.enum) return schema.enum[0]
  const named = NAMES[name]
  if (typeof named === 'string' && isTextOf(schema, named)) return named
  if (schema.default !== undefined && schema.default !== null) return schema.default
  const either = schema.anyOf ?? schema.oneOf
  if (either) return exampleOf(either.find(({ type }) => type !== 'null') ?? either[0] ?? {}, name, depth)
  if (schema.allOf) return Object.assign({}, ...schema.allOf.map((one) => exampleOf(one, name, depth)))
  switch (schema.type) {
    case 'object':
      return objectOf(schema, depth)
    case 'array': {
      if ((schema.minItems ?? 0) === 0 && depth > DEEPEST) return []
      const items = Array.from({ length: Math.max(1, schema.minItems ?? 1) }, () =>
        exampleOf(schema.items ?? {}, name, depth + 1),
      )
      return items
    }
    case 'integer':
    case 'number':
      return numberOf(schema)
    case 'boolean':
      return true
    case 'string':
      return FORMATS[schema.format ?? ''] ?? 'x'.repeat(Math.max(1, schema.minLength ?? 1))
    default:
      return schema.type === 'null' ? null : {}
  }
}

const DEEPEST = 3

const isTextOf = ({ type, format, maxLength = Number.POSITIVE_INFINITY, anyOf }: Schema, text: string): boolean =>
  (type === 'string' && format === undefined && text.length <= maxLength) ||
  (anyOf?.some((one) => isTextOf(one, text)) ?? false)

function objectOf(schema: Schema, depth: number): Record<string, unknown> {
  const { properties = {}, required = [], propertyNames, additionalProperties: value } = schema
  if (propertyNames?.enum && typeof value === 'object')
    return Object.fromEntries(
      propertyNames.enum.map((name) => [String(name), exampleOf(value, String(name), depth + 1)]),
    )
  const shown = Object.entries(properties).filter(([name]) => depth < DEEPEST || required.includes(name))
  return Object.fromEntries(shown.map(([name, one]) => [name, exampleOf(one, name, depth + 1)]))
}

function numberOf({ minimum, exclusiveMinimum, maximum }: Schema): number {
  const least = minimum ?? (exclusiveMinimum === undefined ? 0 : exclusiveMinimum + 1)
  return Math.min(Math.max(1, least), maximum ?? Number.POSITIVE_INFINITY)
}

/** A service that tells of a number for the address of a profile, at once. */
const CONNECTOR = {
  format: 1,
  id: 'saltreed',
  name: 'Saltreed',
  about: 'Mobiles of people with a profile.',
  gives: ['mobile'],
  accepts: ['profile'],
  address: 'https://api.saltreed.example',
  key: { in: 'header', name: 'authorization', value: 'Bearer {{ key }}' },
  one: {
    call: { method: 'POST', path: '/v1/find', body: '{"profile": {{ profile }}}' },
    answers: { how: 'at-once' },
    items: '$.people[*]',
  },
  fields: { number: '$.phone' },
  limit: { atOnce: 2, perSecond: 5 },
  charge: { per: 'candidate', euros: 0.05 },
} as const

/** A destination that takes hashed addresses and numbers of people in a file. */
const DESTINATION = {
  format: 1,
  id: 'pinewood',
  name: 'Pinewood',
  about: 'People by addresses and numbers.',
  audiences: [
    {
      takes: 'people',
      columns: [
        { heading: 'mail', field: 'email', form: ['trim', 'lower'], isHashed: true },
        { heading: 'line', field: 'number', form: ['e164'], isHashed: true },
      ],
      rules: { someOf: ['email', 'number'] },
    },
  ],
  hashing: 'always',
  file: { kinds: ['csv'], mostRows: 1_000_000 },
  size: { fewestMatched: 600 },
  changes: 'whole',
} as const

/** Bodies whose parts depend on each other: no schema says so. */
export const BODY_EXAMPLES: Readonly<Partial<Record<EndpointName, unknown>>> = {
  keepConnector: CONNECTOR,
  tryConnector: { document: CONNECTOR, key: 'the key of it', values: { profile: 'rollcall.example/p/maren' } },
  keepDestination: DESTINATION,
  makeAutomation: { start: 'batch-ready', steps: [{ work: 'pair' }, { work: 'check', amount: 2_000_000 }] },
  judge: { value: '07911 204481', country: 'GB', ask: false },
  addContacts: {
    contacts: [
      {
        id: 'form-2204',
        fields: { 'full-name': 'Maren Oldershaw', number: '07911 204481', email: 'maren@causeway.example' },
        extra: { terrace: 'south' },
      },
    ],
    country: 'GB',
  },
}

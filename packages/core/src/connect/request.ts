import type { Template } from 'liquidjs'
import { remember } from '../remember'
import { createTemplateEngine } from '../templateEngine'
import type { Call, Connector } from './connector'

/** What templates of a connector may name. */
export const REQUEST_NAMES = [
  'name',
  'given',
  'family',
  'company',
  'domain',
  'profile',
  'email',
  'country',
  'number',
  'numbers',
  'emails',
  'callback',
  'reference',
  'receipt',
  'month',
] as const
/** What is filled in. What is not known is empty. */
export type RequestValues = Readonly<Partial<Record<(typeof REQUEST_NAMES)[number], string | readonly string[]>>>

/** A request that is ready to be sent, but for its key. */
export interface OutgoingRequest {
  readonly method: Call['method']
  readonly path: string
  readonly headers: Readonly<Record<string, string>>
  readonly body: string | null
}

/** Longest template, in characters. */
export const LONGEST_TEMPLATE = 4000

const asJson = (value: unknown): string => JSON.stringify(value ?? '')
const asPart = (value: unknown): string => encodeURIComponent(String(value ?? ''))
/** No line break: what stands behind one would be a header of its own. */
const asHeader = (value: unknown): string => String(value ?? '').replace(/[\r\n\0]/g, ' ')

const ENGINES = {
  path: createTemplateEngine({ longest: LONGEST_TEMPLATE, encode: asPart }),
  header: createTemplateEngine({ longest: LONGEST_TEMPLATE, encode: asHeader }),
  body: createTemplateEngine({ longest: LONGEST_TEMPLATE, encode: asJson }),
}
export type TemplatePlace = keyof typeof ENGINES

const parsers = {
  path: remember((text: string) => ENGINES.path.parse(text), 200),
  header: remember((text: string) => ENGINES.header.parse(text), 200),
  body: remember((text: string) => ENGINES.body.parse(text), 200),
} satisfies Record<TemplatePlace, (text: string) => Template[]>

function fill(place: TemplatePlace, template: string, values: RequestValues): string {
  const known = Object.fromEntries(REQUEST_NAMES.map((name) => [name, values[name] ?? '']))
  return ENGINES[place].renderSync(parsers[place](template), known) as string
}

/**
 * Fills a call in.
 * @throws where a template cannot be filled in, or its body is no JSON then: `whyNoTemplate` tells before
 */
export function buildRequest({ method, path, headers = {}, body }: Call, values: RequestValues): OutgoingRequest {
  const text = body === undefined ? null : fill('body', body, values)
  if (text !== null) JSON.parse(text)
  return {
    method,
    path: fill('path', path, values),
    headers: Object.fromEntries(
      Object.entries(headers).map(([name, template]) => [name, fill('header', template, values)]),
    ),
    body: text,
  }
}

/** The header, or the part of the address, that a key goes into. */
export const keyedValue = ({ key }: Connector, secret: string): string => key.value.replace('{{ key }}', secret)

const SAMPLE: RequestValues = Object.fromEntries(
  REQUEST_NAMES.map((name) => [name, name === 'numbers' || name === 'emails' ? ['a "b"'] : 'a "b"']),
)

/** Why a template cannot be used, as a sentence; null where it can. */
export function whyNoTemplate(place: TemplatePlace, template: string): string | null {
  try {
    for (const values of [SAMPLE, {}]) {
      const text = fill(place, template, values)
      if (place === 'body') JSON.parse(text)
    }
    return null
  } catch (error) {
    const why = error instanceof Error ? error.message.split('\n')[0] : String(error)
    return place === 'body' && error instanceof SyntaxError ? `Filled in, this is no JSON: ${why}.` : `${why}.`
  }
}

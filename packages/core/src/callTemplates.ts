import type { Template } from 'liquidjs'
import { remember } from './remember'
import { createTemplateEngine } from './templateEngine'

export const METHODS = ['GET', 'POST', 'PUT', 'DELETE'] as const

/** A request as Liquid templates: what is put into a path or a body is written so that it stays one value there. */
export interface Call {
  readonly method: (typeof METHODS)[number]
  /** Behind the address of the service. */
  readonly path: string
  readonly headers?: Readonly<Record<string, string>> | undefined
  /** A text that is JSON once it is filled in; values stand in it as they are, without quotation marks. */
  readonly body?: string | undefined
}

/** Where the key of a service stands in a request; `{{ key }}` is the key in its value. */
export interface KeyPlace {
  readonly in: 'header' | 'query'
  readonly name: string
  readonly value: string
}

/** How much a service is asked at a time. */
export interface CallLimit {
  readonly perSecond: number | null
  readonly atOnce: number
}

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

type Values = Readonly<Record<string, unknown>>

const fill = (place: TemplatePlace, template: string, values: Values): string =>
  ENGINES[place].renderSync(parsers[place](template), values) as string

/** Templates that may name these values. */
export interface Templates<Name extends string> {
  /**
   * Fills a call in.
   * @throws where a template cannot be filled in, or its body is no JSON then: `whyNot` tells before
   */
  build(call: Call, values: Readonly<Partial<Record<Name, unknown>>>): OutgoingRequest
  /** Why a template cannot be used, as a sentence; null where it can. */
  whyNot(place: TemplatePlace, template: string): string | null
}

/** @param names what templates may name, each with a sample by which they are tried */
export function createTemplates<Name extends string>(names: Readonly<Record<Name, unknown>>): Templates<Name> {
  const nothing = Object.fromEntries(Object.keys(names).map((name) => [name, '']))
  return {
    build: ({ method, path, headers = {}, body }, values) => {
      const all = { ...nothing, ...values }
      const text = body === undefined ? null : fill('body', body, all)
      if (text !== null) JSON.parse(text)
      return {
        method,
        path: fill('path', path, all),
        headers: Object.fromEntries(
          Object.entries(headers).map(([name, template]) => [name, fill('header', template, all)]),
        ),
        body: text,
      }
    },
    whyNot: (place, template) => {
      try {
        for (const values of [names, nothing]) {
          const text = fill(place, template, values)
          if (place === 'body') JSON.parse(text)
        }
        return null
      } catch (error) {
        const why = error instanceof Error ? error.message.split('\n')[0] : String(error)
        return place === 'body' && error instanceof SyntaxError ? `Filled in, this is no JSON: ${why}.` : `${why}.`
      }
    },
  }
}

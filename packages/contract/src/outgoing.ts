import { LONGEST_TEMPLATE, METHODS, type TemplatePlace, whyNoPath } from '@upper-field/core/connect'
import { z } from 'zod'

/** Why a template cannot be used, as a sentence; null where it can. */
type WhyNot = (place: TemplatePlace, template: string) => string | null

const template = (place: TemplatePlace, whyNot: WhyNot) =>
  z
    .string()
    .max(LONGEST_TEMPLATE)
    .superRefine((text, ctx) => {
      const why = whyNot(place, text)
      if (why !== null) ctx.addIssue({ code: 'custom', message: why })
    })

export const JsonPath = z
  .string()
  .max(300)
  .superRefine((path, ctx) => {
    const why = whyNoPath(path)
    if (why !== null) ctx.addIssue({ code: 'custom', message: why })
  })

/** Names of headers (RFC 9110), none of which is ours to write. */
const HeaderName = z
  .string()
  .regex(/^[\w!#$%&'*+.^`|~-]{1,60}$/, 'This is no name of a header.')
  .refine((name) => !OURS.has(name.toLowerCase()), 'This header is written by the application itself.')
const OURS = new Set(['host', 'content-length', 'content-type', 'transfer-encoding', 'connection', 'idempotency-key'])

/** A call of a service outside, as templates. */
export const callOf = (whyNot: WhyNot) =>
  z.strictObject({
    method: z.enum(METHODS),
    path: template('path', whyNot).refine((path) => /^\/(?!\/)/.test(path), 'A path begins with one slash.'),
    headers: z.record(HeaderName, template('header', whyNot)).optional(),
    body: template('body', whyNot).optional(),
  })

export const Address = z.url({ protocol: /^https?$/, error: 'An address begins with https://.' }).max(500)

export const KeyPlace = z.strictObject({
  in: z.enum(['header', 'query']),
  name: HeaderName,
  value: z.string().max(200).includes('{{ key }}', { error: 'Say where the key stands: {{ key }}.' }),
})

export const CallLimit = z
  .strictObject({
    perSecond: z.number().positive().max(1000).nullable().default(null),
    atOnce: z.int().min(1).max(50).default(8),
  })
  .default({ perSecond: null, atOnce: 8 })

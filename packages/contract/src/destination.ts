import { contradictionsIn, DESTINATION_FORMAT, SEND_FIELDS, TAKES, whyNoStep } from '@upper-field/core/send'
import { z } from 'zod'
import { NetworkDocument } from './network'

const Field = z.enum(SEND_FIELDS)
const Fields = z.array(Field).max(SEND_FIELDS.length).default([])

const Step = z
  .string()
  .max(40)
  .superRefine((step, ctx) => {
    const message = whyNoStep(step)
    if (message) ctx.addIssue({ code: 'custom', message })
  })

const Column = z.strictObject({
  heading: z
    .string()
    .trim()
    .min(1, 'A column has a heading.')
    .max(100)
    .regex(/^[^=+\-@\t\r\n]/, 'A heading does not begin as a formula does.'),
  field: Field,
  repeats: z.int().min(1).max(10).default(1),
  form: z.array(Step).max(20).default(['trim']),
  isHashed: z.boolean().default(false),
})

const Shape = z
  .strictObject({
    takes: z.enum(TAKES),
    columns: z.array(Column).min(1).max(60),
    rules: z.strictObject({
      everyRow: Fields,
      someOf: Fields,
      together: z.array(z.array(Field).min(1).max(10)).max(10).default([]),
    }),
  })
  .superRefine((shape, ctx) => {
    for (const { part, message } of contradictionsIn(shape)) ctx.addIssue({ code: 'custom', path: [part], message })
  })

/** A destination as a document: one JSON file that declares what an ad network accepts. */
export const DestinationDocument = z
  .strictObject({
    format: z.literal(DESTINATION_FORMAT, {
      error: ({ input }) =>
        typeof input === 'number' && input > DESTINATION_FORMAT
          ? `This destination is written for a newer version (format ${input}); this one knows format ${DESTINATION_FORMAT}.`
          : `The format is ${DESTINATION_FORMAT}.`,
    }),
    id: z
      .string()
      .regex(/^[a-z][a-z0-9-]{1,39}$/, 'An id is of small letters, digits and dashes.')
      .refine((id) => id !== 'people', 'A file for people is no destination.'),
    name: z.string().trim().min(1).max(60),
    about: z.string().max(500).default(''),
    audiences: z.array(Shape).min(1).max(TAKES.length),
    hashing: z.enum(['always', 'never', 'either']).default('either'),
    file: z
      .strictObject({
        kinds: z
          .array(z.enum(['csv', 'txt']))
          .min(1)
          .default(['csv']),
        mostRows: z.int().min(1).max(1_000_000_000).nullable().default(null),
      })
      .default({ kinds: ['csv'], mostRows: null }),
    size: z
      .strictObject({
        fewest: z.int().min(1).max(10_000_000).nullable().default(null),
        fewestMatched: z.int().min(1).max(10_000_000).nullable().default(null),
        toldFrom: z.int().min(1).max(10_000_000).nullable().default(null),
      })
      .default({ fewest: null, fewestMatched: null, toldFrom: null }),
    lapsesAfterDays: z.int().min(1).max(3650).nullable().default(null),
    changes: z.enum(['added-and-removed', 'whole']).default('whole'),
    network: NetworkDocument.nullable().default(null),
  })
  .superRefine(({ audiences, hashing, changes, network }, ctx) => {
    if (network && changes === 'whole' && !network.part.calls.whole)
      ctx.addIssue({ code: 'custom', path: ['network'], message: 'It is replaced whole, and no call says how.' })
    const takes = audiences.map((one) => one.takes)
    if (new Set(takes).size < takes.length)
      ctx.addIssue({ code: 'custom', path: ['audiences'], message: 'People, or companies, are declared twice.' })
    if (hashing === 'always' && audiences.some(({ columns }) => !columns.some(({ isHashed }) => isHashed)))
      ctx.addIssue({ code: 'custom', path: ['hashing'], message: 'Identifiers are always hashed, and no column is.' })
    if (hashing === 'never' && audiences.some(({ columns }) => columns.some(({ isHashed }) => isHashed)))
      ctx.addIssue({ code: 'custom', path: ['hashing'], message: 'Nothing is hashed, and a column is.' })
  })
export type DestinationDocument = z.infer<typeof DestinationDocument>

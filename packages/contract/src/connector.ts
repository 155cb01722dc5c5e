import {
  ANSWER_FIELDS,
  type AnswerField,
  CHARGED_PER,
  type Connector,
  FORMAT,
  GIVES,
  type Gives,
  INPUT_SETS,
  whyNoTemplate,
} from '@upper-field/core/connect'
import { z } from 'zod'
import { Address, CallLimit, callOf, JsonPath, KeyPlace } from './outgoing'

const Call = callOf(whyNoTemplate)

const Answers = z.discriminatedUnion('how', [
  z.strictObject({ how: z.literal('at-once') }),
  z.strictObject({ how: z.literal('callback'), isSigned: z.boolean() }),
  z.strictObject({
    how: z.literal('polling'),
    receipt: JsonPath,
    look: Call,
    state: JsonPath,
    working: z.array(z.string().max(100)).min(1).max(20),
  }),
])

const WAY = { call: Call, answers: Answers, items: JsonPath }
const Statuses = z.array(z.int().min(300).max(599)).max(30)

const LookUp = z.strictObject({ call: Call, items: JsonPath, code: JsonPath, name: JsonPath })

/** How businesses are listed: `Directory` of the core, as a document. */
const DirectoryPart = z.strictObject({
  trades: LookUp,
  places: LookUp,
  count: z.strictObject({
    call: Call,
    total: JsonPath,
    leftOut: JsonPath.nullable().default(null),
    price: JsonPath.nullable().default(null),
  }),
  perPage: z.int().min(1).max(500),
  next: JsonPath,
  leftOut: JsonPath.nullable().default(null),
  known: z
    .strictObject({
      records: z.boolean(),
      numbers: z.enum(['none', 'plain', 'sha256']),
      most: z.int().min(1).max(10_000),
    })
    .nullable()
    .default(null),
})

const fieldsOf = <T extends z.ZodType>(value: T) => z.partialRecord(z.enum(ANSWER_FIELDS), value)

/** A connector as a document: one JSON file that declares a service outside. */
export const ConnectorDocument = z
  .strictObject({
    format: z.literal(FORMAT, {
      error: ({ input }) =>
        typeof input === 'number' && input > FORMAT
          ? `This connector is written for a newer version (format ${input}); this one knows format ${FORMAT}.`
          : `The format is ${FORMAT}.`,
    }),
    id: z.string().regex(/^[a-z][a-z0-9-]{1,39}$/, 'An id is of small letters, digits and dashes.'),
    name: z.string().trim().min(1).max(60),
    about: z.string().max(500).default(''),
    gives: z.array(z.enum(GIVES)).min(1),
    accepts: z.array(z.enum(INPUT_SETS)).min(1),
    countries: z
      .array(z.string().regex(/^[A-Z]{2}$/, 'A country is two capital letters.'))
      .min(1)
      .max(300)
      .nullable()
      .default(null),
    address: Address,
    key: KeyPlace,
    one: z.strictObject(WAY),
    many: z
      .strictObject({ ...WAY, most: z.int().min(2).max(1000) })
      .nullable()
      .default(null),
    fields: fieldsOf(JsonPath),
    words: fieldsOf(z.record(z.string().max(100), z.string().max(100))).default({}),
    statuses: z
      .strictObject({
        notFound: Statuses.default([404]),
        tryLater: Statuses.default([429, 500, 502, 503, 504]),
        ourFault: Statuses.default([400, 401, 403, 422]),
      })
      .default({ notFound: [404], tryLater: [429, 500, 502, 503, 504], ourFault: [400, 401, 403, 422] }),
    limit: CallLimit,
    charge: z.strictObject({
      per: z.enum(CHARGED_PER),
      euros: z.number().min(0).max(1000).multipleOf(0.000001),
      toldAt: JsonPath.optional(),
      freeWhen: z
        .array(
          fieldsOf(z.string().max(100)).refine(
            (facts) => Object.keys(facts).length > 0,
            'Say what such an answer says.',
          ),
        )
        .max(10)
        .optional(),
    }),
    mostCandidates: z.int().min(1).max(20).default(1),
    isPaidFor: z.boolean().default(false),
    report: Call.nullable().default(null),
    directory: DirectoryPart.nullable().default(null),
    statement: z
      .strictObject({ call: Call, items: JsonPath, day: JsonPath, charges: JsonPath, euros: JsonPath })
      .nullable()
      .default(null),
  })
  .superRefine((connector, ctx) => {
    for (const [path, message] of contradictionsIn(connector)) ctx.addIssue({ code: 'custom', path: [path], message })
  })
export type ConnectorDocument = z.infer<typeof ConnectorDocument>

/** The fields that what is given has to stand in. */
const NEEDS: Readonly<Record<Gives, readonly AnswerField[]>> = {
  mobile: ['number'],
  'any-number': ['number'],
  'work-email': ['email'],
  'personal-email': ['email'],
  'company-site': ['site'],
  'company-page': ['page'],
  'company-industry': ['industry'],
  'company-headcount': ['headcount'],
  'line-facts': ['number', 'lineType', 'status'],
  'email-facts': ['email', 'deliverability'],
  'do-not-call': ['number', 'listed'],
  businesses: ['record', 'name', 'number'],
}
const GIVEN_FOR: Readonly<Partial<Record<Gives, Connector['accepts'][number]>>> = {
  businesses: 'trade-and-place',
  'line-facts': 'number',
  'do-not-call': 'number',
  'email-facts': 'email',
}

/** What does not fit together, each with the place where it stands. */
function contradictionsIn(connector: Connector): [keyof Connector, string][] {
  const { gives, accepts, fields, charge, report } = connector
  const missing = [...new Set(gives.flatMap((one) => NEEDS[one].filter((field) => !(field in fields))))]
  const found: [keyof Connector, string][] = missing.map((field) => [
    'fields',
    `What it gives stands in "${field}": say where that is in an answer.`,
  ])
  for (const one of gives) {
    const input = GIVEN_FOR[one]
    if (input && !accepts.includes(input)) found.push(['accepts', `"${one}" is asked for with "${input}".`])
  }
  if (report !== null && charge.per !== 'accepted' && charge.per !== 'deliverable')
    found.push(['report', 'A service is told what was taken only where it charges for that.'])
  return [...found, ...directoryContradictions(connector)]
}

function directoryContradictions({ gives, charge, one, directory }: Connector): [keyof Connector, string][] {
  const isDirectory = gives.includes('businesses')
  if (isDirectory !== (directory !== null))
    return [['directory', 'A service that gives businesses, and no other, says how they are listed.']]
  if (directory === null) return []
  const found: [keyof Connector, string][] = []
  if (gives.length > 1) found.push(['gives', 'A directory gives businesses and nothing else.'])
  if (one.answers.how !== 'at-once') found.push(['one', 'A directory answers at once.'])
  if (charge.per !== 'call' && charge.per !== 'candidate')
    found.push(['charge', 'A directory charges per call or per record ("candidate").'])
  return found
}

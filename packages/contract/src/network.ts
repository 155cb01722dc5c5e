import { AUDIENCE_STATES, networkTemplates, PART_CHANGES, PURPOSES } from '@upper-field/core/send'
import { z } from 'zod'
import { Address, CallLimit, callOf, JsonPath, KeyPlace } from './outgoing'

const Call = callOf(networkTemplates.whyNot)
const Word = z.string().max(100)

const Refusal = z.strictObject({
  says: z.string().trim().min(1).max(300),
  remedy: z.string().max(300).default(''),
  takes: z.string().max(60).default(''),
  stops: z.enum(['everything', 'aiming']).default('everything'),
})

/** How a network is called: `NetworkCalls` of the core, as a document. */
export const NetworkDocument = z.strictObject({
  address: Address,
  key: KeyPlace,
  limit: CallLimit,
  tryLater: z.array(z.int().min(300).max(599)).max(30).default([429, 500, 502, 503, 504]),
  accounts: z.strictObject({ call: Call, items: JsonPath, id: JsonPath, name: JsonPath, lacks: JsonPath }),
  make: z.strictObject({ call: Call, id: JsonPath }),
  begin: z.strictObject({ call: Call, id: JsonPath }).nullable().default(null),
  part: z.strictObject({
    most: z.int().min(1).max(100_000),
    calls: z
      .partialRecord(z.enum(PART_CHANGES), Call)
      .refine(
        ({ add, whole }) => add !== undefined || whole !== undefined,
        'Say how lines are sent: "add" or "whole".',
      ),
  }),
  finish: Call.nullable().default(null),
  state: z.strictObject({
    call: Call,
    state: JsonPath,
    words: z
      .record(Word, z.enum(AUDIENCE_STATES))
      .refine((words) => Object.values(words).includes('usable'), 'No word of the network means "usable".'),
    size: JsonPath,
    reason: JsonPath.nullable().default(null),
    lapsesAt: JsonPath.nullable().default(null),
  }),
  remove: Call.nullable().default(null),
  refusals: z.strictObject({ code: JsonPath, words: z.record(Word, Refusal).default({}) }),
  purposes: z
    .partialRecord(z.enum(PURPOSES), Word)
    .refine((words) => Object.keys(words).length > 0, 'Say what an audience can be for.'),
  trial: z
    .strictObject({
      call: Call,
      id: JsonPath,
      look: Call,
      state: JsonPath,
      over: z.array(Word).min(1).max(10),
      reach: JsonPath,
      spent: JsonPath,
    })
    .nullable()
    .default(null),
  similar: z.strictObject({ call: Call, id: JsonPath }).nullable().default(null),
})

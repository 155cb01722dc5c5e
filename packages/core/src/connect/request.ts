import { type Call, createTemplates, type KeyPlace, type OutgoingRequest, type TemplatePlace } from '../callTemplates'

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
  'search',
  'trade',
  'place',
  'cursor',
  'size',
  'knownRecords',
  'knownNumbers',
] as const
type RequestName = (typeof REQUEST_NAMES)[number]
/** What is filled in. What is not known is empty. */
export type RequestValues = Readonly<Partial<Record<RequestName, string | number | readonly string[]>>>

/** The header, or the part of the address, that a key goes into. */
export const keyedValue = (key: KeyPlace, secret: string): string => key.value.replace('{{ key }}', secret)

const LISTS: ReadonlySet<RequestName> = new Set(['numbers', 'emails', 'knownRecords', 'knownNumbers'])
const SAMPLE = Object.fromEntries(
  REQUEST_NAMES.map((name) => [name, name === 'size' ? 50 : LISTS.has(name) ? ['a "b"'] : 'a "b"']),
) as Record<RequestName, unknown>

const templates = createTemplates(SAMPLE)

/** Fills a call of a connector in. Throws where its templates cannot be: `whyNoTemplate` tells before. */
export const buildRequest = (call: Call, values: RequestValues): OutgoingRequest => templates.build(call, values)

/** Why a template of a connector cannot be used, as a sentence; null where it can. */
export const whyNoTemplate = (place: TemplatePlace, template: string): string | null =>
  templates.whyNot(place, template)

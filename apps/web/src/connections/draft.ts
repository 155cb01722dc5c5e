import { ConnectorDocument } from '@upper-field/contract'

/** What is wrong with a connector that is being written, and where. */
export interface DraftProblem {
  /** The place, as names with dots between; empty for the whole. */
  readonly place: string
  readonly message: string
}

/** A connector that is being written: what it is so far, or what is wrong with it. */
export type Draft =
  | { readonly status: 'whole'; readonly document: ConnectorDocument }
  | { readonly status: 'wrong'; readonly problems: readonly DraftProblem[] }

/** Reads a text as a connector, as it is typed. */
export function readDraft(text: string): Draft {
  let json: unknown
  try {
    json = JSON.parse(text)
  } catch (error) {
    return { status: 'wrong', problems: [{ place: '', message: `This is no JSON yet: ${whereIn(error, text)}` }] }
  }
  const parsed = ConnectorDocument.safeParse(json)
  if (parsed.success) return { status: 'whole', document: parsed.data }
  const problems = parsed.error.issues.map(({ path, message }) => ({ place: path.map(String).join('.'), message }))
  return { status: 'wrong', problems }
}

/** Engines tell a position, some the line as well. */
function whereIn(error: unknown, text: string): string {
  const message = error instanceof Error ? error.message : ''
  const at = /position (\d+)/.exec(message)?.[1]
  if (at === undefined) return `${message}.`
  const line = text.slice(0, Number(at)).split('\n').length
  return `line ${line}. A comma or a quotation mark may be missing before it.`
}

/** What a connector begins as, with something to change at every place. */
export const blank = (): string =>
  inLines({
    format: 1,
    id: 'new-service',
    name: 'New service',
    about: '',
    gives: ['mobile'],
    accepts: ['name-and-company'],
    address: 'https://api.new-service.example',
    key: { in: 'header', name: 'authorization', value: 'Bearer {{ key }}' },
    one: {
      call: { method: 'POST', path: '/find', body: '{"name": {{ name }}, "company": {{ company }}}' },
      answers: { how: 'at-once' },
      items: '$.found[*]',
    },
    fields: { number: '$.number', score: '$.score' },
    charge: { per: 'call', euros: 0.05 },
    mostCandidates: 3,
  })

/** A document as it is written into the editor: nothing that is as it is anyway. */
export function textOf(document: ConnectorDocument): string {
  const { words, many, report, statement, isPaidFor, ...rest } = document
  const shown = {
    ...rest,
    ...(Object.keys(words).length > 0 ? { words } : {}),
    ...(many ? { many } : {}),
    ...(report ? { report } : {}),
    ...(statement ? { statement } : {}),
    ...(isPaidFor ? { isPaidFor } : {}),
  }
  return inLines(shown)
}

/** JSON with short lists of plain values on one line. */
const inLines = (value: unknown): string =>
  `${JSON.stringify(value, null, 2).replace(/\[\s+([^[\]{}]{1,90}?)\s+\]/g, (_, inside: string) => `[${inside.replace(/,\s+/g, ', ')}]`)}\n`

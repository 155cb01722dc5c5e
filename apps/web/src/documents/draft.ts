import type { z } from 'zod'

/** What is wrong with a document that is being written, and where. */
export interface DraftProblem {
  /** The place, as names with dots between; empty for the whole. */
  readonly place: string
  readonly message: string
}

/** A document that is being written: what it is so far, or what is wrong with it. */
export type Draft<D> =
  | { readonly status: 'whole'; readonly document: D }
  | { readonly status: 'wrong'; readonly problems: readonly DraftProblem[] }

/** Reads a text as a document of a kind, as it is typed. */
export function readDocument<S extends z.ZodType>(schema: S, text: string): Draft<z.infer<S>> {
  let json: unknown
  try {
    json = JSON.parse(text)
  } catch (error) {
    return { status: 'wrong', problems: [{ place: '', message: `This is no JSON yet: ${whereIn(error, text)}` }] }
  }
  const parsed = schema.safeParse(json)
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

/** JSON with short lists of plain values on one line. */
export const inLines = (value: unknown): string =>
  `${JSON.stringify(value, null, 2).replace(/\[\s+([^[\]{}]{1,90}?)\s+\]/g, (_, inside: string) => `[${inside.replace(/,\s+/g, ', ')}]`)}\n`

/**
 * Whether what is written says something else than what is kept; how it is laid out does not matter.
 * @param write how a document of this kind is written into the editor
 */
export function isOtherwise<D>(kept: D, draft: Draft<D>, text: string, write: (document: D) => string): boolean {
  return (draft.status === 'whole' ? write(draft.document) : text) !== write(kept)
}

/** Why a new document cannot be kept under its id: another would be lost. Null where it can. */
export function whyTaken<D extends { readonly id: string }>(
  draft: Draft<D>,
  known: readonly { readonly id: string; readonly name: string }[],
): string | null {
  if (draft.status !== 'whole') return null
  const there = known.find(({ id }) => id === draft.document.id)
  return there ? `“${there.id}” is the id of ${there.name} already. Give this one another id.` : null
}

/** A copy of a document under the first id behind its own that is free. */
export function copyOf<D extends { readonly id: string; readonly name: string }>(
  document: D,
  known: readonly { readonly id: string }[],
): D {
  let number = 2
  while (known.some(({ id }) => id === `${document.id}-${number}`)) number++
  return { ...document, id: `${document.id}-${number}`, name: `${document.name} ${number}` }
}

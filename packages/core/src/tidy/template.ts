import { Liquid } from 'liquidjs'

export type Render = (values: Readonly<Record<string, string>>) => string
export type RenderOrProblem =
  | { readonly status: 'ready'; readonly render: Render }
  | { readonly status: 'refused'; readonly why: string }

const LONGEST_TEMPLATE = 2000
const LONGEST_RESULT = 1000
/** A template works on one contact: what repeats, or reads other files, has no place in it. */
const REFUSED_TAGS = ['for', 'tablerow', 'cycle', 'increment', 'decrement', 'include', 'render', 'layout', 'block']

const engine = new Liquid({
  strictFilters: true,
  ownPropertyOnly: true,
  parseLimit: LONGEST_TEMPLATE,
  memoryLimit: 20_000,
})

/** A template in Liquid over the columns of a contact; dashes and spaces in their names are underscores. */
export function createTemplate(text: string): RenderOrProblem {
  if (text.trim() === '') return { status: 'refused', why: 'The template is empty.' }
  if (text.length > LONGEST_TEMPLATE)
    return { status: 'refused', why: `A template has at most ${LONGEST_TEMPLATE} characters.` }
  const tag = REFUSED_TAGS.find((name) => new RegExp(`\\{%-?\\s*${name}\\b`).test(text))
  if (tag)
    return { status: 'refused', why: `“${tag}” cannot be used: a template works on one contact and does not repeat.` }
  try {
    const parsed = engine.parse(text)
    engine.renderSync(parsed, {})
    return { status: 'ready', render: (values) => renderOne(parsed, values) }
  } catch (error) {
    return { status: 'refused', why: `This template cannot be read: ${error instanceof Error ? error.message : ''}` }
  }
}

function renderOne(parsed: ReturnType<Liquid['parse']>, values: Readonly<Record<string, string>>): string {
  try {
    return String(engine.renderSync(parsed, values)).replace(/\s+/g, ' ').trim().slice(0, LONGEST_RESULT)
  } catch {
    // A value that one contact's cells make too large for the limits leaves its column blank.
    return ''
  }
}

/** Name of a column inside a template: `Postal code` is `postal_code`. */
export const templateName = (column: string): string =>
  column
    .toLowerCase()
    .replace(/[^\p{L}\p{N}]+/gu, '_')
    .replace(/^_|_$/g, '')

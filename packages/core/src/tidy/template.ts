import type { Liquid } from 'liquidjs'
import { createTemplateEngine } from '../templateEngine'

export type Render = (values: Readonly<Record<string, string>>) => string
export type RenderOrProblem =
  | { readonly status: 'ready'; readonly render: Render }
  | { readonly status: 'refused'; readonly why: string }

const LONGEST_TEMPLATE = 2000
const LONGEST_RESULT = 1000
/** So much of a cell can be seen by a template, in characters: more than any result can hold. */
const LONGEST_VALUE = 5000
/** Tags and outputs of a template: nothing repeats, so that they bound the steps of a rendering. */
const MOST_STEPS = 100

const engine = createTemplateEngine({ longest: LONGEST_TEMPLATE })

/** A template in Liquid over the columns of a contact; dashes and spaces in their names are underscores. */
export function createTemplate(text: string): RenderOrProblem {
  if (text.trim() === '') return { status: 'refused', why: 'The template is empty.' }
  if (text.length > LONGEST_TEMPLATE)
    return { status: 'refused', why: `A template has at most ${LONGEST_TEMPLATE} characters.` }
  if ((text.match(/\{[{%]/g) ?? []).length > MOST_STEPS)
    return { status: 'refused', why: `A template has at most ${MOST_STEPS} tags and outputs.` }
  try {
    const parsed = engine.parse(text)
    return { status: 'ready', render: (values) => renderOne(parsed, values) }
  } catch (error) {
    return { status: 'refused', why: whyNot(error) }
  }
}

function whyNot(error: unknown): string {
  const told = error instanceof Error ? error.message : ''
  const tag = /tag "([^"]*)" not found/.exec(told)?.[1]
  if (tag !== undefined)
    return `“${tag}” cannot be used: a template works on one contact, does not repeat and reads nothing else.`
  const filter = /undefined filter: ([^,\s]*)/.exec(told)?.[1]
  if (filter !== undefined) return `The filter “${filter}” cannot be used: it is not one of those that work on a text.`
  return `This template cannot be read: ${told}`
}

function renderOne(parsed: ReturnType<Liquid['parse']>, values: Readonly<Record<string, string>>): string {
  try {
    return String(engine.renderSync(parsed, shortened(values)))
      .replace(/\s+/g, ' ')
      .trim()
      .slice(0, LONGEST_RESULT)
  } catch {
    // A value that one contact's cells make too large for the limits leaves its column blank.
    return ''
  }
}

function shortened(values: Readonly<Record<string, string>>): Readonly<Record<string, string>> {
  if (Object.values(values).every((value) => value.length <= LONGEST_VALUE)) return values
  return Object.fromEntries(Object.entries(values).map(([name, value]) => [name, value.slice(0, LONGEST_VALUE)]))
}

/** Name of a column inside a template: `Postal code` is `postal_code`. */
export const templateName = (column: string): string =>
  column
    .toLowerCase()
    .replace(/[^\p{L}\p{N}]+/gu, '_')
    .replace(/^_|_$/g, '')

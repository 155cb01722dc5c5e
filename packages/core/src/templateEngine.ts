import { Liquid } from 'liquidjs'

/** Tags that choose, name and note. Those that repeat, take other files in or hold further tags within are not known. */
export const TEMPLATE_TAGS: ReadonlySet<string> = new Set([
  'assign',
  'capture',
  'case',
  'comment',
  'echo',
  'if',
  'raw',
  'unless',
  '#',
])

/** Filters that make one text, number or short list of another, in a time that grows with its length alone. */
export const TEMPLATE_FILTERS: ReadonlySet<string> = new Set([
  'abs',
  'append',
  'at_least',
  'at_most',
  'capitalize',
  'ceil',
  'compact',
  'date',
  'default',
  'divided_by',
  'downcase',
  'escape',
  'first',
  'floor',
  'join',
  'last',
  'lstrip',
  'minus',
  'modulo',
  'normalize_whitespace',
  'number_of_words',
  'plus',
  'prepend',
  'remove',
  'remove_first',
  'remove_last',
  'replace',
  'replace_first',
  'replace_last',
  'reverse',
  'round',
  'rstrip',
  'size',
  'slice',
  'split',
  'squish',
  'strip',
  'strip_newlines',
  'times',
  'truncate',
  'truncatewords',
  'uniq',
  'upcase',
  'url_encode',
])

/** All texts that one rendering makes on its way, in characters together. */
const MOST_CHARACTERS = 20_000
/** No rendering comes near it: a last resort, in milliseconds. */
const LONGEST_RENDERING = 1000

export interface TemplateRules {
  /** Most characters of a template. */
  readonly longest: number
  /** How what is put in is written, so that it stays one value in the text around it. */
  readonly encode?: (value: unknown) => string
}

/**
 * Liquid as far as a template of ours needs it. What is not allowed is taken out of the engine itself, so that no way
 * of writing it leads there; files are looked for in an empty collection, in the browser and on the server alike.
 */
export function createTemplateEngine({ longest, encode }: TemplateRules): Liquid {
  const engine = new Liquid({
    ...(encode ? { outputEscape: encode } : {}),
    strictFilters: true,
    ownPropertyOnly: true,
    templates: {},
    relativeReference: false,
    dynamicPartials: false,
    parseLimit: longest,
    memoryLimit: MOST_CHARACTERS,
    renderLimit: LONGEST_RENDERING,
    timezoneOffset: 0,
  })
  keepOnly(engine.tags, TEMPLATE_TAGS)
  keepOnly(engine.filters, TEMPLATE_FILTERS)
  forgetTheClock(engine)
  return engine
}

function keepOnly(known: Record<string, unknown>, allowed: ReadonlySet<string>): void {
  for (const name of Object.keys(known)) if (!allowed.has(name)) delete known[name]
  // Names that every object has, such as `constructor`, are no tags and no filters.
  Object.setPrototypeOf(known, null)
}

/** A column is the same whenever it is made: `now` and `today` are words like others. */
function forgetTheClock({ filters }: Liquid): void {
  const { date } = filters
  if (typeof date !== 'function') throw new Error('the engine has no filter for dates')
  filters.date = function (value: unknown, ...rest: unknown[]) {
    return value === 'now' || value === 'today' ? value : date.call(this, value, ...rest)
  }
}

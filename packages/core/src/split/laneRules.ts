import type { FilterField, FilterNode } from './filterTree'
import { type Columns, parseFilter } from './parseFilter'
import { LANES } from './placeContact'
import type { Use } from './scopes'

/** Ways to reach somebody that a lane can be for. */
export const USES = ['texts', 'calls', 'post', 'ads'] as const satisfies readonly Use[]

/** One rule: whoever can be reached so, may be, and is meant by the filter goes to this lane. */
export interface LaneRule {
  /** `text`, `call`, `post` and `ads-only` are the usual ones; others are an operator's own. */
  readonly lane: string
  readonly name: string
  readonly use: Use
  /** A filter as it is typed; empty for everybody. */
  readonly filter: string
}

const USUAL: readonly LaneRule[] = [
  { lane: 'text', name: 'Text', use: 'texts', filter: '' },
  { lane: 'call', name: 'Call', use: 'calls', filter: '' },
  { lane: 'post', name: 'Post', use: 'post', filter: '' },
  { lane: 'ads-only', name: 'Ads only', use: 'ads', filter: '' },
]

/** So large a share of a list has to have whole postal addresses for a lane of post to be proposed. */
const WORTH_POST = 0.05

/** The rules that are proposed for a list, by how many of its contacts can be reached in which way. */
export const proposedRules = (contacts: number, withAddress: number): readonly LaneRule[] =>
  USUAL.filter(({ use }) => use !== 'post' || (contacts > 0 && withAddress / contacts >= WORTH_POST))

/** Facets that are decided by the lanes: a rule cannot ask for them. */
const BY_LANES: ReadonlySet<FilterField> = new Set(['lane', 'reason', 'fell'])

/** What is wrong with the rules of a list, each with the rule it is about. @param columns keys of the list's own columns */
export function mistakesInRules(
  rules: readonly LaneRule[],
  columns: Columns = new Set(),
): readonly { readonly at: number; readonly message: string }[] {
  return rules.flatMap(({ lane, name, filter }, at) => {
    const found: string[] = []
    if (lane === 'parked') found.push('Parked is for everybody else: it needs no rule.')
    if (!/^[a-z][a-z0-9-]{0,39}$/.test(lane)) found.push('A lane is called by small letters, digits and dashes.')
    if (name.trim() === '') found.push('A lane has a name.')
    if (rules.findIndex((one) => one.lane === lane) !== at) found.push(`There are two lanes “${lane}”.`)
    const { filter: read, issues } = parseFilter(filter, columns)
    if (issues.length > 0) found.push(`“${issues[0]?.word}” in its filter cannot be read.`)
    if (asksForLanes(read.rest) || [...BY_LANES].some((field) => read.piles[field]?.length))
      found.push('A rule cannot ask for lanes: they are what it decides.')
    return found.map((message) => ({ at, message }))
  })
}

const asksForLanes = (nodes: readonly FilterNode[]): boolean =>
  nodes.some((node) => {
    if (node.kind === 'and' || node.kind === 'or') return asksForLanes(node.of)
    if (node.kind === 'not') return asksForLanes([node.of])
    return node.kind === 'term' && BY_LANES.has(node.field as FilterField)
  })

/** A lane's id for a name that an operator gave it, one that no other has. */
export function laneIdFor(name: string, taken: readonly string[]): string {
  const plain = name
    .normalize('NFD')
    .replace(/\p{M}/gu, '')
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^[^a-z]+|-+$/g, '')
    .slice(0, 30)
  const base = plain === '' ? 'lane' : plain
  const all = new Set([...taken, ...LANES])
  if (!all.has(base)) return base
  for (let n = 2; ; n++) if (!all.has(`${base}-${n}`)) return `${base}-${n}`
}

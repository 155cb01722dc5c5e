import { readPhoneCell } from '../phone'
import { type Field, isRepeatable } from './fields'
import { fieldOfHeading } from './headingWords'

/** What one column holds, told from its first cells. Shares are of the cells that are not blank. */
export interface ColumnFacts {
  readonly heading: string
  readonly samples: readonly string[]
  readonly blank: number
  readonly phones: number
  readonly emails: number
  readonly webs: number
}

export interface FieldSuggestion {
  readonly field: Field | null
  /** 0 to 1. */
  readonly confidence: number
  readonly why: 'heading' | 'cells' | 'heading-and-cells' | 'nothing'
}

export function describeColumn(heading: string, cells: readonly string[], country: string | null): ColumnFacts {
  const filled = cells.filter((cell) => cell.trim() !== '')
  const share = (test: (cell: string) => boolean) =>
    filled.length === 0 ? 0 : filled.filter(test).length / filled.length
  return {
    heading,
    samples: filled.slice(0, 3),
    blank: cells.length === 0 ? 1 : 1 - filled.length / cells.length,
    phones: share((cell) => looksLikePhone(cell, country)),
    emails: share((cell) => /^[^\s@]+@[^\s@]+\.[^\s@]{2,}$/.test(cell.trim())),
    webs: share((cell) => /^(?:https?:\/\/|www\.)\S+$|^[\w-]+(?:\.[\w-]+)*\.[a-z]{2,12}\/?$/i.test(cell.trim())),
  }
}

function looksLikePhone(cell: string, country: string | null): boolean {
  if (cell.replace(/\D/g, '').length < 7) return false
  const { verdict } = readPhoneCell(cell, { country })
  if (verdict === 'clean' || verdict === 'repaired' || verdict === 'placeholder') return true
  return /^[+(0][\d\s()./+-]{7,20}$/.test(cell.trim())
}

/** A field for each column: by its heading, by what its cells hold, and never the same single field twice. */
export function suggestFields(columns: readonly ColumnFacts[]): readonly FieldSuggestion[] {
  const taken = new Set<Field>()
  const order = columns.map((_, i) => i)
  const first = columns.map(suggestField)
  order.sort((a, b) => (first[b]?.confidence ?? 0) - (first[a]?.confidence ?? 0))
  const result: FieldSuggestion[] = []
  for (const i of order) {
    const suggestion = first[i] ?? NOTHING
    const isFree = suggestion.field === null || isRepeatable(suggestion.field) || !taken.has(suggestion.field)
    if (suggestion.field) taken.add(suggestion.field)
    result[i] = isFree ? suggestion : NOTHING
  }
  return result
}

const NOTHING: FieldSuggestion = { field: null, confidence: 0, why: 'nothing' }

function suggestField(facts: ColumnFacts): FieldSuggestion {
  const named = fieldOfHeading(facts.heading)
  const held = fieldOfCells(facts)
  if (named && held && named.field === held.field)
    return { field: named.field, confidence: 0.99, why: 'heading-and-cells' }
  if (named && contradicts(named.field, facts)) return held ?? NOTHING
  if (named) return { ...named, why: 'heading' }
  return held ?? NOTHING
}

function fieldOfCells(facts: ColumnFacts): FieldSuggestion | null {
  if (facts.blank === 1) return null
  if (facts.emails > 0.5) return { field: 'email', confidence: facts.emails * 0.95, why: 'cells' }
  if (facts.phones > 0.5) return { field: 'number', confidence: facts.phones * 0.9, why: 'cells' }
  if (facts.webs > 0.6) return { field: 'web', confidence: facts.webs * 0.7, why: 'cells' }
  return null
}

/** A heading is not believed where hardly any cell could be what it says. */
function contradicts(field: Field, facts: ColumnFacts): boolean {
  if (facts.blank === 1) return false
  if (field === 'number') return facts.emails > 0.5
  if (field === 'email') return facts.emails < 0.2
  return facts.emails > 0.8 || (facts.phones > 0.8 && field !== 'postal-code')
}

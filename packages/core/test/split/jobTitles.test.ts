import { describe, expect, it } from '@jest/globals'
import { readTitle } from '../../src/split'

describe('a job title', () => {
  it.each<[string, string, string | null]>([
    ['Head of Procurement', 'purchasing', 'head'],
    ['Einkaufsleiterin', 'purchasing', 'head'],
    ['Leiter Einkauf', 'purchasing', 'head'],
    ['Directrice des achats', 'purchasing', 'head'],
    ['Jefe de compras', 'purchasing', 'head'],
    ['Responsabile acquisti', 'purchasing', 'head'],
    ['Hoofd inkoop', 'purchasing', 'head'],
    ['Diretora de compras', 'purchasing', 'head'],
    ['Buyer', 'purchasing', 'specialist'],
    ['CEO', 'management', 'executive'],
    ['Geschäftsführerin', 'management', 'executive'],
    ['Gérante', 'management', 'executive'],
    ['Inhaber', 'management', 'owner'],
    ['Propriétaire', 'management', 'owner'],
    ['Titolare', 'management', 'owner'],
    ['Sales Manager', 'sales', 'manager'],
    ['Vertriebsleitung', 'sales', 'head'],
    ['Commercial Director', 'sales', 'head'],
    ['VP Marketing', 'marketing', 'executive'],
    ['Marketing Coordinator', 'marketing', 'manager'],
    ['CFO', 'finance', 'executive'],
    ['Kaufmännische Leiterin', 'finance', 'head'],
    ['Rezeptionistin', 'service', null],
    ['Stellv. Geschäftsführer', 'management', 'head'],
    ['Assistenz der Geschäftsführung', 'management', 'assistant'],
    ['Assistant to the CEO', 'management', 'assistant'],
  ])('%s is of %s, at the level %s', (title, of, level) => {
    const read = readTitle(title)
    expect(read.functions).toContain(of)
    expect(read.level).toBe(level)
  })

  it.each(['', '   ', 'Gärtner', '—', '12345', 'xyzzy'])('%j says nothing', (title) =>
    expect(readTitle(title)).toEqual({ functions: [], level: null }),
  )

  it('may be of several functions', () =>
    expect(readTitle('Head of Sales & Marketing').functions).toEqual(['sales', 'marketing']))
})

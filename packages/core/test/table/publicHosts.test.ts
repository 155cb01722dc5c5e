import { describe, expect, it } from '@jest/globals'
import fc from 'fast-check'
import { learnPublicHosts } from '../../src/table/publicHosts'
import { compileRoutine, proposeRoutine } from '../../src/tidy'

const FIELDS = ['company', 'email'] as const
const learn = (rows: readonly (readonly [company: string, email: string])[]) =>
  learnPublicHosts([rows.map(([company]) => company), rows.map(([, email]) => email)], FIELDS)

/** Rows of one host, with so many companies in turn. */
const at = (host: string, rows: number, companies: readonly string[]) =>
  Array.from({ length: rows }, (_, i) => [companies[i % companies.length] ?? '', `person${i}@${host}`] as const)

describe('mail hosts that serve everybody', () => {
  it('are those of many companies', () => {
    const rows = [...at('oxbow.test', 6, ['Alder', 'Birch', 'Cedar']), ...at('alder.test', 6, ['Alder', 'Alder Ltd'])]
    expect(learn(rows)).toEqual(['oxbow.test'])
  })

  it('are those of many people without a company, where others have one', () => {
    const rows = [...at('oxbow.test', 9, ['']), ...at('alder.test', 14, ['Alder'])]
    expect(learn(rows)).toEqual(['oxbow.test'])
  })

  it.each([
    [
      'a house that is written in three ways',
      at('alder.test', 9, ['Alder', 'Alder', 'Alder', 'Alder Works', 'ALDER Y']),
    ],
    ['a host of two or three', at('oxbow.test', 3, ['Alder', 'Birch', 'Cedar'])],
    ['the only host of a list without companies', at('alder.test', 20, [''])],
    ['cells that hold no address', at('', 20, ['Alder', 'Birch', 'Cedar'])],
  ])('are not: %s', (_, rows) => expect(learn(rows)).toEqual([]))

  it('are the same in whatever order the rows stand', () => {
    const rows = [...at('oxbow.test', 8, ['Alder', 'Birch', 'Cedar', 'Dogwood']), ...at('alder.test', 5, ['Alder'])]
    fc.assert(
      fc.property(fc.shuffledSubarray(rows, { minLength: rows.length }), (shuffled) =>
        expect([...learn(shuffled)].sort()).toEqual(['oxbow.test']),
      ),
    )
  })

  it('make addresses personal, so that they are nobody’s site', () => {
    const mapping = ['full-name', 'email'] as const
    const layout = { mapping: [...mapping], headings: ['Name', 'Mail'] }
    const tidy = (publicHosts?: ReadonlySet<string>) =>
      compileRoutine(proposeRoutine([...mapping]), layout, publicHosts ? { publicHosts } : {}).tidy([
        'Zo',
        'zo@oxbow.test',
      ])
    expect([tidy().emails[0]?.kind, tidy().values.domain]).toEqual(['work', 'oxbow.test'])
    const known = tidy(new Set(['oxbow.test']))
    expect([known.emails[0]?.kind, known.values.domain]).toEqual(['personal', ''])
  })
})

import { describe, expect, it } from '@jest/globals'
import { encodeHTML, encodeXML } from 'entities'
import fc from 'fast-check'
import { compileRoutine, proposeRoutine } from '../../src/tidy'
import { mendEntities } from '../../src/tidy/entities'

describe('signs that a page wrote as entities', () => {
  it.each([
    ['O&#39;Connor', "O'Connor"],
    ['Siobh&aacute;n', 'Siobhán'],
    ['Causeway &amp; Sons', 'Causeway & Sons'],
    ['Causeway &amp;amp; Sons', 'Causeway & Sons'],
    ['Ann&nbsp;Hill', 'Ann Hill'],
    ['&#x2B;44 7911 204481', '+44 7911 204481'],
  ])('%s is %s', (text, meant) => expect(mendEntities(text)).toBe(meant))

  it.each(['Hill & Sons', 'R&D; sales', 'A&B', '&', '&;', 'me&you;', 'plain', ''])('%s stays', (text) =>
    expect(mendEntities(text)).toBeNull(),
  )

  it('come back as they were, whatever they were', () => {
    const signs = fc.constantFrom(...`abc äöüßéñ&<>"'中Ж€`.split(''))
    fc.assert(
      fc.property(fc.array(signs, { maxLength: 20 }), fc.constantFrom(encodeHTML, encodeXML), (letters, encode) => {
        const text = letters.join('')
        const written = encode(text)
        expect(mendEntities(written) ?? written).toBe(text)
      }),
    )
  })

  it('are mended in every column before anything else is, as a repair that is told and can be left out', () => {
    const mapping = ['full-name', 'company', 'number', null] as const
    const layout = { mapping, headings: ['Name', 'Firm', 'Phone', 'Remark'] }
    const cells = ['O&#39;CONNOR, SIOBH&Aacute;N', 'Causeway &amp; Sons', '&#43;447911204481', 'caf&eacute;']
    const tidied = compileRoutine(proposeRoutine(mapping), layout).tidy(cells)
    expect([tidied.values.fullName, tidied.values.company, ...tidied.numbers.map(({ e164 }) => e164)]).toEqual([
      "Siobhán O'Connor",
      'Causeway & Sons',
      '+447911204481',
    ])
    expect(tidied.changes.filter(({ code }) => code === 'html-entities').map(({ is }) => is)).toHaveLength(4)
    const without = compileRoutine(proposeRoutine(mapping), layout, { leftOut: new Set(['html-entities']) }).tidy(cells)
    expect(without.values.company).toBe('Causeway &amp; Sons')
  })
})

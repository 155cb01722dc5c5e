import { describe, expect, it } from '@jest/globals'
import fc from 'fast-check'
import { compileRoutine, proposeRoutine } from '../../src/tidy'
import { mendLetters } from '../../src/tidy/brokenLetters'

/** UTF-8 read as Windows-1252, as a program does that was told the wrong encoding. */
const broken = (text: string): string => new TextDecoder('windows-1252').decode(new TextEncoder().encode(text))

describe('letters broken by a wrong encoding', () => {
  it.each([
    ['MÃ¼ller', 'Müller'],
    ['Jos\u00c3\u00a9 Garc\u00c3\u00ada', 'José García'],
    ['BrÃ¶del & SÃ¶hne', 'Brödel & Söhne'],
    ['Oâ€™Hara', 'O’Hara'],
    ['CafÃ©', 'Café'],
    ['Ð˜Ð²Ð°Ð½', 'Иван'],
    ['MÃƒÂ¼ller', 'Müller'],
  ])('%s is %s', (text, meant) => expect(mendLetters(text)).toBe(meant))

  it.each([
    'Müller',
    'José',
    'Ängström',
    'Ñandú',
    'São Paulo',
    'M�ller',
    'M?ller',
    'Ã',
    'Â£',
    'plain',
    '',
    '李雷',
    'ßža',
  ])('%s stays, or has nothing to mend', (text) => expect([null, '£']).toContain(mendLetters(text)))

  it('come back as they were, whatever they were', () => {
    const letters = fc.constantFrom(...'äöüßéèêñçåøæłśžőűğşıабвґїαβγ中文éÅ'.split(''))
    const names = fc.array(fc.oneof(letters, fc.constantFrom(...'abcxyz '.split(''))), { minLength: 3, maxLength: 20 })
    fc.assert(
      fc.property(names, (signs) => {
        const text = signs.join('')
        // What looks broken as it is (`Åž` for `Ş`) cannot be told from what was broken twice.
        fc.pre(/[^ -~]/.test(text) && mendLetters(text) === null)
        expect(mendLetters(broken(text))).toBe(text)
      }),
    )
  })

  it('are mended in every column, as a repair that is told and can be left out', () => {
    const mapping = ['full-name', 'company', null] as const
    const headings = ['Name', 'Company', 'Note']
    const tidier = compileRoutine(proposeRoutine([...mapping]), { mapping: [...mapping], headings }, {})
    const tidied = tidier.tidy(['JÃ¶rg MÃ¼ller', 'BrÃ¶del', 'spÃ¤t'])
    expect(tidied.values).toMatchObject({ fullName: 'Jörg Müller', company: 'Brödel' })
    expect(tidied.changes.filter(({ code }) => code === 'broken-letters')).toHaveLength(3)
  })
})

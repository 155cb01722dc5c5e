import { createHash } from 'node:crypto'
import { describe, expect, it } from '@jest/globals'
import { BRASSBELL, fileNameFor, headingsOf, personCells, prepareMember } from '../../src/send'

const hash = (text: string) => createHash('sha256').update(text).digest('hex')
const maren = {
  givenName: ' Maren ',
  familyName: 'OLDERSHAW',
  postalCode: 'ne69 7bp',
  country: 'gb',
  emails: ['Maren.O@Postbox.example'],
  numbers: [{ e164: '+447911204481', country: 'GB' }],
}

describe('an audience for Brassbell', () => {
  it('repeats its columns up to three times', () => {
    expect(headingsOf(BRASSBELL)).toEqual([
      'mail',
      'mail',
      'mail',
      'line',
      'line',
      'line',
      'given',
      'family',
      'postal',
      'country',
    ])
  })

  it('has its normal forms when plain', () => {
    expect(prepareMember(maren, BRASSBELL, { hash: null })).toEqual({
      status: 'ready',
      cells: ['maren.o@postbox.example', '', '', '+447911204481', '', '', 'maren', 'oldershaw', 'NE697BP', 'GB'],
      mends: [],
    })
  })

  it.each(['=2+5', '+cmd|x', '-1+1', '@sum(a1)', '\t=1', '\r=1'])(
    'makes %j harmless in every plain cell but a number, which stays as it is compared',
    (odd) => {
      const all = { ...maren, givenName: odd, familyName: odd, postalCode: odd, emails: [`${odd}@x.example`] }
      const prepared = prepareMember(all, BRASSBELL, { hash: null })
      const cells = prepared.status === 'ready' ? prepared.cells : []
      expect(cells).toHaveLength(10)
      expect(cells.filter((cell) => /^[=+\-@\t\r]/.test(cell))).toEqual(['+447911204481'])
    },
  )

  it('hashes the normal forms as lower-case hex, and nothing that is blank', () => {
    const prepared = prepareMember(maren, BRASSBELL, { hash })
    const cells = prepared.status === 'ready' ? prepared.cells : []
    // sha256sum of the e-mail in lower case
    expect(cells[0]).toBe(hash('maren.o@postbox.example'))
    expect(cells[3]).toBe(hash('+447911204481'))
    expect(cells.slice(1, 3)).toEqual(['', ''])
    expect(cells).not.toContain(hash(''))
    expect(cells.slice(8)).toEqual(['NE697BP', 'GB'])
    expect(cells[0]).toMatch(/^[0-9a-f]{64}$/)
  })

  it('takes the country from the number, and says so', () => {
    expect(prepareMember({ ...maren, country: '' }, BRASSBELL, { hash: null })).toMatchObject({
      status: 'ready',
      mends: ['country-from-number'],
    })
  })

  it('leaves out whom it cannot match, with the reason', () => {
    expect(prepareMember({ ...maren, emails: [], numbers: [] }, BRASSBELL, { hash })).toEqual({
      status: 'left-out',
      reason: 'no-identifier',
    })
    expect(prepareMember({ ...maren, country: '', numbers: [] }, BRASSBELL, { hash })).toEqual({
      status: 'left-out',
      reason: 'no-country',
    })
  })

  it('sends at most three of each, each once', () => {
    const many = { ...maren, emails: ['a@x.example', 'A@x.example', 'b@x.example', 'c@x.example', 'd@x.example'] }
    const prepared = prepareMember(many, BRASSBELL, { hash: null })
    expect(prepared).toMatchObject({
      cells: [
        'a@x.example',
        'b@x.example',
        'c@x.example',
        '+447911204481',
        '',
        '',
        'maren',
        'oldershaw',
        'NE697BP',
        'GB',
      ],
    })
  })
})

describe('files', () => {
  it('have plain, dated names', () => {
    const date = new Date('2026-11-23T23:30:00Z')
    expect(fileNameFor('Autumn terraces', 'brassbell hashed', date)).toBe(
      'autumn-terraces-brassbell-hashed-2026-11-23.csv',
    )
    expect(fileNameFor('Café / Été ../x', 'contacts', date)).toBe('cafe-ete-x-contacts-2026-11-23.csv')
    expect(fileNameFor('列', '', date)).toBe('list-2026-11-23.csv')
  })

  it('for people hold no formula', () => {
    const cells = personCells({
      fullName: '=HYPERLINK("x")',
      company: '+cmd',
      title: '',
      numbers: ['+447911204481'],
      emails: ['a@b.example'],
      city: '-1',
      country: 'GB',
      lane: 'text',
      notFor: ['calls'],
    })
    expect(cells.filter((cell) => /^[=+\-@]/.test(cell))).toEqual(['+447911204481'])
    expect(cells).toHaveLength(13)
    expect(cells.at(-1)).toBe('calls')
  })
})

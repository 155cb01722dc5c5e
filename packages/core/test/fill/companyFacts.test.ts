import { describe, expect, it } from '@jest/globals'
import { companyFactsIn } from '../../src/fill'

const isOther = (name: string) => name !== 'Maren Oldershaw'

describe('what an answer tells of a company', () => {
  it('is the first word on each fact', () =>
    expect(
      companyFactsIn(
        [
          { name: 'Maren Oldershaw', industry: 'Hotels' },
          { site: 'https://causeway.example', industry: 'Campsites', headcount: '12' },
        ],
        isOther,
      ),
    ).toEqual({ site: 'https://causeway.example', page: '', industry: 'Hotels', headcount: 12 }))

  it('is nothing of somebody else', () =>
    expect(companyFactsIn([{ name: 'Tom Garside', site: 'https://rival.example' }], isOther)).toBeNull())

  it.each([-3, 0, 1.5, 'many', 1e9, true])('takes no headcount of %p', (headcount) => {
    const facts = companyFactsIn([{ industry: 'Hotels', headcount }], isOther)
    expect(facts?.headcount).toBe(headcount === true ? 1 : null)
  })

  it('is nothing where nothing is told', () => {
    expect(companyFactsIn([], isOther)).toBeNull()
    expect(companyFactsIn([{ name: 'Maren Oldershaw', site: ' ' }], isOther)).toBeNull()
  })

  it('is cut where it is too long to be meant', () =>
    expect(companyFactsIn([{ industry: 'x'.repeat(2000) }], isOther)?.industry).toHaveLength(500))
})

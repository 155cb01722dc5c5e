import { expect, it } from '@jest/globals'
import fc from 'fast-check'
import { stretchesOf } from '../../src/contacts/ofContacts'

it('finds what each contact has, whatever was read of others between them', () => {
  const ids = fc.uniqueArray(fc.integer({ min: 1, max: 120 }), { maxLength: 40 })
  fc.assert(
    fc.property(ids, fc.array(fc.integer({ min: 1, max: 120 }), { maxLength: 80 }), (asked, read) => {
      const wanted = asked.toSorted((a, b) => a - b)
      const of = read.toSorted((a, b) => a - b)
      const { from, to } = stretchesOf(wanted, of.map(String))
      for (const [at, id] of wanted.entries())
        expect(of.slice(from[at], to[at])).toEqual(of.filter((contact) => contact === id))
    }),
  )
})

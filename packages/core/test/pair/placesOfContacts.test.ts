import { describe, expect, it } from '@jest/globals'
import fc from 'fast-check'
import { placesOfContacts } from '../../src/pair/placesOfContacts'

describe('placesOfContacts', () => {
  it('tells of each contact all its places, in order', () => {
    const given = fc
      .integer({ min: 1, max: 20 })
      .chain((size) => fc.tuple(fc.constant(size), fc.array(fc.nat(size - 1), { maxLength: 60 })))
    fc.assert(
      fc.property(given, ([size, contacts]) => {
        const { starts, places } = placesOfContacts(size, contacts.length, (place) => contacts[place] ?? 0)
        for (let at = 0; at < size; at++)
          expect([...places.subarray(starts[at], starts[at + 1])]).toEqual(
            contacts.flatMap((one, place) => (one === at ? [place] : [])),
          )
      }),
    )
  })
})

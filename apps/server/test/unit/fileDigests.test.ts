import { createHash } from 'node:crypto'
import { expect, it } from '@jest/globals'
import fc from 'fast-check'
import { createFileDigests } from '../../src/send/fileDigests'

const ofWhole = (pieces: readonly Uint8Array[]) => createHash('sha256').update(Buffer.concat(pieces)).digest('hex')

it('is that of the whole file, however it came in pieces, and beside others', () =>
  fc.assert(
    fc.property(fc.array(fc.uint8Array({ maxLength: 20 }), { minLength: 1, maxLength: 9 }), (pieces) => {
      const digests = createFileDigests()
      for (const [at, piece] of pieces.entries()) {
        digests.add('a', at, Buffer.from(piece))
        digests.add('b', at, Buffer.from('other'))
      }
      expect(digests.take('a', pieces.length)).toBe(ofWhole(pieces))
      expect(digests.take('a', pieces.length)).toBeNull()
    }),
  ))

it('is not known where a piece was not seen, or more are there than were', () => {
  const digests = createFileDigests()
  digests.add('after a crash', 3, Buffer.from('x'))
  expect(digests.take('after a crash', 4)).toBeNull()
  digests.add('with a gap', 0, Buffer.from('x'))
  digests.add('with a gap', 2, Buffer.from('x'))
  expect(digests.take('with a gap', 3)).toBeNull()
  digests.add('not whole', 0, Buffer.from('x'))
  expect(digests.take('not whole', 2)).toBeNull()
})

it('begins anew with the first piece', () => {
  const digests = createFileDigests()
  digests.add('a', 0, Buffer.from('old'))
  digests.add('a', 0, Buffer.from('new'))
  expect(digests.take('a', 1)).toBe(ofWhole([Buffer.from('new')]))
})

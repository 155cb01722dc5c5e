import { expect, it } from '@jest/globals'
import fc from 'fast-check'
import { z } from 'zod'
import { copyOf, inLines, isOtherwise, readDocument, whyTaken } from '../src/documents/draft'

const Kind = z.object({ id: z.string(), name: z.string(), tags: z.array(z.string()) })
const documents = fc.record({
  id: fc.stringMatching(/^[a-z]{1,3}$/),
  name: fc.string(),
  tags: fc.array(fc.string()),
})
const write = (document: z.infer<typeof Kind>) => inLines(document)

it('a document reads as itself however it is laid out, and no layout is a change', () => {
  fc.assert(
    fc.property(documents, fc.constantFrom(0, 1, 2, 7), (document, indent) => {
      const text = JSON.stringify(document, null, indent)
      const draft = readDocument(Kind, text)
      expect(draft).toEqual({ status: 'whole', document })
      expect(isOtherwise(document, draft, text, write)).toBe(false)
      const other = { ...document, tags: [...document.tags, 'more'] }
      expect(isOtherwise(other, draft, text, write)).toBe(true)
    }),
  )
})

it('a copy stands under an id that nobody has', () => {
  fc.assert(
    fc.property(documents, fc.integer({ min: 0, max: 6 }), (document, copies) => {
      const known = [document]
      for (let i = 0; i < copies; i++) known.push(copyOf(document, known))
      expect(new Set(known.map(({ id }) => id)).size).toBe(copies + 1)
      const made = readDocument(Kind, write(copyOf(document, known)))
      expect(whyTaken(made, known)).toBeNull()
      expect(whyTaken(readDocument(Kind, write(document)), known)).toContain(document.id)
    }),
  )
})

it('what is not whole yet takes nobody’s place', () => {
  expect(whyTaken(readDocument(Kind, '{"id": "a"}'), [{ id: 'a', name: 'A' }])).toBeNull()
})

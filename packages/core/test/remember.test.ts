import { describe, expect, it } from '@jest/globals'
import fc from 'fast-check'
import { remember } from '../src/remember'

/** Counts how often an answer is made. */
function counted<T>(answer: (text: string) => T, most: number) {
  let made = 0
  const kept = remember((text) => {
    made++
    return answer(text)
  }, most)
  return { kept, made: () => made }
}

describe('remember', () => {
  it('answers what the function answers, whatever was asked before', () => {
    fc.assert(
      fc.property(
        fc.array(fc.string({ maxLength: 2 }), { maxLength: 200 }),
        fc.integer({ min: 1, max: 5 }),
        (texts, most) => {
          const answer = (text: string) => (text.length === 1 ? undefined : text.toUpperCase())
          const { kept } = counted(answer, most)
          expect(texts.map(kept)).toEqual(texts.map(answer))
        },
      ),
    )
  })

  it('makes an answer once for as long as there is room, one that is undefined too', () => {
    const { kept, made } = counted(() => undefined, 3)
    for (let i = 0; i < 50; i++) for (const text of ['a', 'b', 'c']) kept(text)
    expect(made()).toBe(3)
  })

  it('drops all at once where there is no room left', () => {
    const { kept, made } = counted((text) => text, 3)
    for (const text of ['a', 'b', 'c', 'a', 'd']) kept(text)
    expect(made()).toBe(4)
    for (const text of ['d', 'a', 'b', 'd']) kept(text)
    expect(made()).toBe(6)
  })
})

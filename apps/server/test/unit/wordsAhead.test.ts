import { afterEach, expect, it } from '@jest/globals'
import { awaitWords, tellWords, type WordsAhead } from '../../src/contacts/wordsAhead'

const begun: WordsAhead[] = []
afterEach(() => {
  for (const one of begun.splice(0)) one.end()
})
const awaited = (listId: string): WordsAhead => {
  const ahead = awaitWords(listId)
  begun.push(ahead)
  return ahead
}
const taken = (ahead: WordsAhead, most = 10) => [...ahead.take(most)]

it('words are told to whoever awaits those of their list, from then on', () => {
  tellWords('one', 1, 'too early')
  const ahead = awaited('one')
  tellWords('other', 2, 'of another list')
  tellWords('one', 3, 'quince')
  expect(taken(ahead)).toEqual([[3, 'quince']])
  expect(taken(ahead)).toEqual([])
})

it('they are taken so many at a time, in the order in which they were told, the latest of each contact', () => {
  const ahead = awaited('one')
  for (const id of [5, 3, 4]) tellWords('one', id, `first of ${id}`)
  tellWords('one', 3, 'second of 3')
  expect(taken(ahead, 2)).toEqual([
    [5, 'first of 5'],
    [3, 'second of 3'],
  ])
  expect(taken(ahead, 2)).toEqual([[4, 'first of 4']])
})

it('nothing is kept for whoever awaits them no longer, and what others await stays', () => {
  const [before, after] = [awaited('one'), awaited('one')]
  before.end()
  tellWords('one', 1, 'quince')
  expect(taken(after)).toEqual([[1, 'quince']])
  after.end()
  tellWords('one', 2, 'pear')
  expect(taken(after)).toEqual([])
})

it('no more wait than there is room for; those that wait are brought up to date all the same', () => {
  const ahead = awaited('one')
  for (let id = 0; id < 50_100; id++) tellWords('one', id, 'first')
  tellWords('one', 7, 'second')
  const all = ahead.take(Number.POSITIVE_INFINITY)
  expect([all.size, all.get(7), all.has(50_050)]).toEqual([50_000, 'second', false])
  tellWords('one', 50_050, 'there is room again')
  expect(taken(ahead)).toEqual([[50_050, 'there is room again']])
})

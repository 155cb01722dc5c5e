import { describe, expect, it } from '@jest/globals'
import type { Audience, Delivery, Difference, Todo } from '@upper-field/contract'
import { TODO_KINDS } from '@upper-field/core/today'
import { todoText } from '../src/lists/todoText'
import { colourOf } from '../src/send/AccountName'
import {
  byPressure,
  deliveryText,
  dueText,
  isChanging,
  isNoChange,
  matchedText,
  sendText,
  sinceText,
} from '../src/send/audienceText'
import { audience, difference } from './madeAudience'

const NOW = Date.parse('2026-11-28T08:00:00Z')
const inDays = (days: number) => new Date(NOW + days * 86_400_000).toISOString()

describe('an audience in words', () => {
  it.each<[string, Partial<Audience>, string]>([
    ['not sent', { state: 'not-sent' }, 'not sent'],
    ['being matched', { state: 'matching' }, 'being matched'],
    ['usable', { matched: 60 }, '60 %'],
    ['too small to be told', { matched: null }, 'not told under 500'],
    ['lapsed', { state: 'lapsed' }, 'lapsed: nobody is in it any more'],
    ['refused', { state: 'refused', refusal: { code: 'x', says: 'Too few.', remedy: '', takes: '' } }, 'Too few.'],
    ['made by the network', { people: 0, matched: 90 }, '90 people'],
  ])('says how many match where it is %s', (_, more, text) => expect(matchedText(audience(more), 500).text).toBe(text))

  it('says what was foretold beside what came', () => {
    const forecast = { low: 30, middle: 40, high: 50, people: 100, byKind: [], oneMore: [], learntFrom: 0 }
    expect(matchedText(audience({ matched: 60, forecast }), null).text).toBe('60 %, forecast 30–50 %')
  })

  it.each<[Partial<Audience>, string, string]>([
    [{ dueAt: inDays(12) }, 'refresh in 12 days', 'soft'],
    [{ dueAt: inDays(-1) }, 'refresh due', 'bad'],
    [{ dueAt: inDays(-1), lapsesAt: inDays(1) }, 'refresh due, lapses 29 Nov 2026', 'bad'],
    [{ dueAt: inDays(1), lapsesAt: inDays(2) }, 'lapses 30 Nov 2026', 'bad'],
    [{ dueAt: inDays(4), lapsesAt: inDays(5) }, 'lapses 3 Dec 2026', 'look'],
    [{ state: 'lapsed' }, 'lapsed', 'bad'],
    [{}, '', 'soft'],
  ])('says when it wants something: %j', (more, text, tone) =>
    expect(dueText(audience(more), NOW)).toEqual({ text, tone }),
  )

  it('says before it is sent that too few will match', () => {
    const forecast = { low: 200, middle: 300, high: 450, people: 500, byKind: [], oneMore: [], learntFrom: 0 }
    const next = audience({ state: 'not-sent', forecast })
    expect(dueText(next, NOW, 600)).toEqual({ text: 'below the minimum of 600 matched', tone: 'bad' })
    expect(dueText(next, NOW, 400).text).toBe('')
    expect(matchedText(next, null).text).toBe('not sent, forecast 200 to 450')
  })

  it('says who came and who left', () => {
    expect(sinceText(audience({ cameSince: 1212, leftSince: 64 }))).toBe('+1,212 −64')
    expect(sinceText(audience())).toBe('no change')
    expect(sinceText(audience({ isBehind: true }))).toBe('')
    expect(sinceText(audience({ isBehind: true, cameSince: 12 }))).toBe('+12 −0')
    expect(sinceText(audience({ lastEditionAt: null, cameSince: 4 }))).toBe('')
  })

  it.each<[string, Partial<Audience>, boolean]>([
    ['its network matches', { state: 'matching' }, true],
    ['its network has just received it', { state: 'received' }, true],
    ['it is being counted', { state: 'usable', isBehind: true }, true],
    ['nothing is at work', { state: 'usable' }, false],
  ])('is read again by itself where %s', (_, more, is) => expect(isChanging(audience(more))).toBe(is))

  it('stands on the board by how pressing it is', () => {
    const board = [
      audience({ name: 'quiet' }),
      audience({ name: 'new', state: 'not-sent' }),
      audience({ name: 'due', dueAt: inDays(-1) }),
      audience({ name: 'refused', state: 'refused' }),
      audience({ name: 'owed', owedRemovals: 1 }),
      audience({ name: 'lapses', dueAt: inDays(1), lapsesAt: inDays(5) }),
    ]
    expect(board.toSorted((a, b) => byPressure(a, b, NOW)).map(({ name }) => name)).toEqual([
      'owed',
      'refused',
      'due',
      'lapses',
      'new',
      'quiet',
    ])
  })
})

describe('the button that sends', () => {
  it.each<[Partial<Difference>, string]>([
    [{ comes: 212, leaves: 64 }, 'Send 212 in, 64 out to Wrenfold UK'],
    [{ comes: 3 }, 'Send 3 in to Wrenfold UK'],
    [{ comes: 0, leaves: 2 }, 'Send 2 out to Wrenfold UK'],
    [{ comes: 0, leaves: 0, renewed: 9 }, 'Send 0 in, 9 again to Wrenfold UK'],
    [{ way: 'whole', people: 1200 }, 'Send all 1,200 anew to Wrenfold UK'],
  ])('says what it does: %j', (more, text) => expect(sendText(difference(more), 'Wrenfold UK')).toBe(text))

  it('is not there where nothing would change', () => {
    expect(isNoChange(difference({ comes: 0, leaves: 0 }))).toBe(true)
    expect(isNoChange(difference({ comes: 1 }))).toBe(false)
    expect(isNoChange(difference({ comes: 0, suppressedSince: 1 }))).toBe(false)
  })
})

describe('a delivery in words', () => {
  const delivery = (more: Partial<Delivery>): Delivery => ({
    id: 'd',
    jobId: null,
    editionId: null,
    way: 'changes',
    state: 'done',
    added: 0,
    removed: 0,
    renewed: 0,
    refusedLines: 0,
    refusedParts: 0,
    refusal: null,
    forecast: null,
    matched: null,
    startedBy: null,
    startedAt: inDays(0),
    endedAt: null,
    ...more,
  })
  it.each<[Partial<Delivery>, string]>([
    [{ added: 12, removed: 3, matched: 8 }, 'sent: 12 in, 3 out, 8 matched'],
    [{ way: 'removals', removed: 2 }, 'sent: removals, 2 out'],
    [{ added: 5, refusedLines: 5 }, 'sent: 5 in, 5 refused'],
    [{ state: 'under-way' }, 'under way'],
  ])('%j', (more, text) => expect(deliveryText(delivery(more))).toBe(text))
})

describe('the colour of an account', () => {
  it('is the same every time, and not that of every other', () => {
    expect(colourOf('bb-4410')).toBe(colourOf('bb-4410'))
    expect(new Set(['a', 'b', 'c', 'd', 'e', 'f', 'g'].map(colourOf)).size).toBeGreaterThan(3)
  })
})

describe('what wants doing', () => {
  const todo = (more: Partial<Todo>): Todo => ({
    kind: 'review',
    pressure: 'quiet',
    listId: 'l1',
    listName: 'Terraces',
    audienceId: 'a1',
    name: 'Autumn',
    destination: 'Brassbell',
    n: 12,
    more: 4,
    at: inDays(-1),
    says: 'Too few.',
    ...more,
  })
  it.each(TODO_KINDS.map((kind) => [kind] as const))('of %s has a title, and leads somewhere', (kind) => {
    const { title, act, to } = todoText(todo({ kind, name: kind === 'job-stopped' ? 'fill' : 'Autumn' }))
    expect([title, act].every((text) => text.length > 4 && !/undefined|NaN/.test(text))).toBe(true)
    expect(to).toMatch(kind === 'budget' ? /^\/spend$/ : /^\/lists\/l1\//)
  })

  it('says how many, where and since when', () => {
    expect(todoText(todo({ kind: 'removals-overdue', n: 1 }))).toMatchObject({
      title: '1 said no and is still in an audience',
      about: 'Autumn at Brassbell · since 27 Nov 2026',
      to: '/lists/l1/send?audience=a1',
    })
    expect(todoText(todo({ n: 230, more: 480 }))).toMatchObject({
      title: '230 cells to review, 480 pairs to decide',
      act: 'Begin · about 39 min',
    })
    expect(todoText(todo({ n: 0, more: 1 })).to).toBe('/lists/l1/pair')
  })
})

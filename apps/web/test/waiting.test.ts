import { afterEach, beforeEach, describe, expect, it, jest } from '@jest/globals'
import { configureStore } from '@reduxjs/toolkit'
import type { Job } from '@upper-field/contract'
import { browserName } from '../src/people/browserName'
import { giveUp, waitingActs, watched } from '../src/shell/waitingActs'
import { whoIsAtWork } from '../src/shell/whoIsAtWork'

describe('an act that has to wait', () => {
  beforeEach(() => void jest.useFakeTimers())
  afterEach(() => void jest.useRealTimers())
  const start = () => {
    const store = configureStore({ reducer: { waitingActs } })
    let finish: (value: string) => void = () => {}
    let signal: AbortSignal | undefined
    const result = watched('decidePair', store.dispatch, (given) => {
      signal = given
      return new Promise<string>((resolve, reject) => {
        finish = resolve
        given.addEventListener('abort', () => reject(new Error('aborted')))
      })
    })
    return { store, result, finish: (value: string) => finish(value), signal: () => signal }
  }
  const waiting = (store: ReturnType<typeof start>['store']) => store.getState().waitingActs

  it('is told after a moment, and no longer once it is done', async () => {
    const { store, result, finish } = start()
    jest.advanceTimersByTime(1000)
    expect(waiting(store)).toEqual([])
    jest.advanceTimersByTime(500)
    expect(waiting(store)).toMatchObject([{ name: 'decidePair' }])
    finish('done')
    expect(await result).toBe('done')
    expect(waiting(store)).toEqual([])
  })

  it('is not told at all where it is quick', async () => {
    const { store, result, finish } = start()
    finish('done')
    await result
    jest.advanceTimersByTime(5000)
    expect(waiting(store)).toEqual([])
  })

  it('can be given up', async () => {
    const { store, result, signal } = start()
    jest.advanceTimersByTime(1500)
    giveUp(waiting(store).map(({ id }) => id))
    expect(signal()?.aborted).toBe(true)
    await expect(result).rejects.toThrow('aborted')
    expect(waiting(store)).toEqual([])
  })
})

describe('who is at work on a list', () => {
  const job = (more: Partial<Job>): Job => ({
    id: '1',
    kind: 'tidy',
    listId: '2',
    state: 'running',
    phase: '',
    phaseShare: null,
    done: 43,
    total: 100,
    before: 0,
    unit: 'contacts',
    problem: null,
    result: {},
    startedBy: 'Maud',
    createdAt: '',
    startedAt: null,
    finishedAt: null,
    ...more,
  })
  it('is the job that has it, with who started it and how far it is', () =>
    expect(whoIsAtWork([job({})])).toBe('This list is at work: tidying, started by Maud, 43 %.'))
  it('may have been started by the application itself, and not know its end', () =>
    expect(whoIsAtWork([job({ startedBy: null, total: null })])).toBe('This list is at work: tidying.'))
  it('is told with how far its phase is, where that is told', () =>
    expect(whoIsAtWork([job({ total: null, phase: 'joining', phaseShare: 0.299 })])).toBe(
      'This list is at work: tidying, started by Maud, 29 %.',
    ))
  it.each<Partial<Job>>([
    { state: 'done' },
    { state: 'queued' },
    { state: 'paused' },
    { kind: 'index' },
    { kind: 'fill' },
  ])('is no job that is over, has not begun or holds no list: %j', (more) =>
    expect(whoIsAtWork([job(more)])).toBeNull(),
  )
})

describe('a browser', () => {
  it.each([
    [
      'Mozilla/5.0 (X11; Linux x86_64) AppleWebKit/537.36 (KHTML, like Gecko) HeadlessChrome/156.0 Safari/537.36',
      'Chrome on Linux',
    ],
    [
      'Mozilla/5.0 (Windows NT 10.0; Win64; x64) AppleWebKit/537.36 Chrome/150.0 Safari/537.36 Edg/150.0',
      'Edge on Windows',
    ],
    [
      'Mozilla/5.0 (Macintosh; Intel Mac OS X 14_5) AppleWebKit/605.1.15 Version/18.0 Safari/605.1.15',
      'Safari on macOS',
    ],
    [
      'Mozilla/5.0 (iPhone; CPU iPhone OS 18_0 like Mac OS X) AppleWebKit/605.1 Version/18.0 Mobile Safari/604.1',
      'Safari on iOS',
    ],
    ['Mozilla/5.0 (Android 15; Mobile; rv:140.0) Gecko/140.0 Firefox/140.0', 'Firefox on Android'],
    ['node', 'a program'],
    ['', 'a program'],
    [null, 'a program'],
  ])('%s is %s', (agent, name) => expect(browserName(agent)).toBe(name))
})

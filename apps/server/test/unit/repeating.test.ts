import { expect, it, jest } from '@jest/globals'
import { repeating } from '../../src/jobs/repeating'

jest.useFakeTimers()

it('begins anew only after it has ended, and never twice at once', async () => {
  const ends: (() => void)[] = []
  const stop = repeating(() => new Promise<void>((resolve) => ends.push(resolve)), 1000)
  expect(ends).toHaveLength(1)
  await jest.advanceTimersByTimeAsync(60_000)
  expect(ends).toHaveLength(1)
  ends[0]?.()
  await jest.advanceTimersByTimeAsync(999)
  expect(ends).toHaveLength(1)
  await jest.advanceTimersByTimeAsync(1)
  expect(ends).toHaveLength(2)
  stop()
})

it('begins no more once it was stopped, at rest or at work', async () => {
  let [atRest, atWork] = [0, 0]
  let end = () => {}
  const stops = [
    repeating(async () => void atRest++, 1000),
    repeating(
      () =>
        new Promise<void>((resolve) => {
          atWork++
          end = resolve
        }),
      1000,
    ),
  ]
  await jest.advanceTimersByTimeAsync(500)
  for (const stop of stops) stop()
  end()
  await jest.advanceTimersByTimeAsync(60_000)
  expect([atRest, atWork]).toEqual([1, 1])
})

it('is stopped once what is under way has ended', async () => {
  const ends: (() => void)[] = []
  const stop = repeating(() => new Promise<void>((resolve) => ends.push(resolve)), 1000)
  ends[0]?.()
  await jest.advanceTimersByTimeAsync(1000)
  let isStopped = false
  const stopped = stop().then(() => {
    isStopped = true
  })
  await jest.advanceTimersByTimeAsync(60_000)
  expect([ends.length, isStopped]).toEqual([2, false])
  ends[1]?.()
  await stopped
  expect(isStopped).toBe(true)
})

import { expect, it } from '@jest/globals'
import { createReadAhead } from '../../src/jobs/readAhead'

it('gives what was read ahead to the step it was read for, once', async () => {
  const ahead = createReadAhead<string>()
  ahead.begin('job', 7, Promise.resolve('page'))
  expect(ahead.take('other', 7)).toBeNull()
  expect(await ahead.take('job', 7)).toBe('page')
  expect(ahead.take('job', 7)).toBeNull()
  ahead.begin('job', 7, Promise.resolve('page'))
  expect(ahead.take('job', 8)).toBeNull()
  ahead.begin('job', 7, Promise.resolve('page'))
  ahead.drop('job')
  expect(ahead.take('job', 7)).toBeNull()
})

it('is read anew by a job that rested: somebody may have said no meanwhile', async () => {
  let now = 0
  const ahead = createReadAhead<string>(() => now)
  ahead.begin('job', 7, Promise.resolve('page'))
  now = 5000
  expect(await ahead.take('job', 7)).toBe('page')
  ahead.begin('job', 7, Promise.resolve('page'))
  now = 10_001
  expect(ahead.take('job', 7)).toBeNull()
})

it('leaves a failure to whoever takes it', async () => {
  const ahead = createReadAhead<string>()
  ahead.begin('job', 7, Promise.reject(new Error('away')))
  await expect(ahead.take('job', 7)).rejects.toThrow('away')
})

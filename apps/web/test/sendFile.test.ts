import { describe, expect, it } from '@jest/globals'
import { outcomeOf, type PartOutcome, sendFile } from '../src/bring/sendFile'

const FILE = new Blob(['x'.repeat(1000)])

/** Sends a file over a connection that behaves as told: what each part comes to, and what has arrived when asked. */
async function sent(parts: readonly PartOutcome[], received: readonly (number | 'all' | null)[] = []) {
  const offsets: number[] = []
  const shares: number[] = []
  const broken: boolean[] = []
  let asked = 0
  const problem = await sendFile('batch', FILE, {
    onProgress: (share) => shares.push(share),
    onBroken: (isBroken) => broken.push(isBroken),
    signal: new AbortController().signal,
    waits: [0],
    sendPart: async (_, __, { offset, onLoaded }) => {
      offsets.push(offset)
      onLoaded(100)
      return parts[Math.min(offsets.length, parts.length) - 1] ?? { status: 'sent' }
    },
    receivedOf: async () => received[Math.min(asked++, received.length - 1)] ?? null,
  })
  return { problem, offsets, shares, broken }
}

describe('a file on its way', () => {
  it('is sent once where nothing breaks', async () =>
    expect(await sent([{ status: 'sent' }])).toEqual({ problem: null, offsets: [0], shares: [0.1], broken: [] }))

  it('goes on where it broke off, as far as the server has it', async () =>
    expect(await sent([{ status: 'broken' }, { status: 'broken' }, { status: 'sent' }], [400, 800])).toEqual({
      problem: null,
      offsets: [0, 400, 800],
      shares: [0.1, 0.5, 0.9],
      broken: [true, false, true, false],
    }))

  it('waits while the server cannot be asked', async () => {
    const { problem, offsets, broken } = await sent(
      [{ status: 'broken' }, { status: 'broken' }, { status: 'sent' }],
      [null, 300],
    )
    expect(problem).toBeNull()
    expect(offsets).toEqual([0, 0, 300])
    expect(broken).toEqual([true, true, false])
  })

  it('has arrived where only the answer was lost', async () =>
    expect(await sent([{ status: 'broken' }], ['all'])).toMatchObject({ problem: null, offsets: [0] }))

  it('is given up after many tries without one more byte, and says so', async () => {
    const { problem, offsets } = await sent([{ status: 'broken' }], [200])
    expect(problem).toMatch(/did not come back/)
    expect(offsets.length).toBeGreaterThan(5)
    expect(offsets.length).toBeLessThan(30)
  })

  it('is not tried again where it was refused or stopped', async () => {
    expect(await sent([{ status: 'refused', detail: 'This is no table.' }])).toMatchObject({
      problem: 'This is no table.',
      offsets: [0],
    })
    expect((await sent([{ status: 'stopped' }])).problem).toMatch(/stopped/)
  })
})

describe('what an answer means', () => {
  const problem = (code: string, detail = 'Why.') => JSON.stringify({ code, detail })
  it.each<[number, string, PartOutcome['status']]>([
    [200, '{}', 'sent'],
    [408, problem('upload-broken'), 'broken'],
    [409, problem('upload-under-way'), 'broken'],
    [409, problem('offset-off'), 'broken'],
    [503, problem('too-many-uploads'), 'broken'],
    [502, '<html>Bad gateway</html>', 'broken'],
    [415, problem('format-off'), 'refused'],
    [413, problem('file-too-large'), 'refused'],
    [409, problem('already-received'), 'refused'],
    [401, problem('not-signed-in'), 'refused'],
    [413, '<html>', 'refused'],
  ])('%d %s: %s', (status, body, expected) => expect(outcomeOf(status, body).status).toBe(expected))

  it('carries the sentence of the server', () =>
    expect(outcomeOf(415, problem('format-off', 'Another file.'))).toEqual({
      status: 'refused',
      detail: 'Another file.',
    }))
})

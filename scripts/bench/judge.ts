import { createClient } from '@upper-field/contract'
import { withBenchList } from './benchServer'
import { median } from './timing'

const ONE_BY_ONE = 500
const AT_ONCE = 16
const SECONDS = 6

/**
 * Judgements beside a bare read by primary key: one after the other, some at once, and a hundred values a call. The
 * server has one core to itself, where this machine has another for whoever asks.
 */
export async function judgeBench({ rows }: { rows: number | null }): Promise<void> {
  const people = rows ?? 20_000
  const lines = Array.from({ length: people }, (_, i) => `Given${i} Oldershaw,${numberOf(i)},p${i}@postbox.example`)
  await withBenchList(`name,phone,mail\n${lines.join('\n')}\n`, async ({ url, db }) => {
    // Keys are made by owners: the demo's operator is none.
    const { hash, start, secret } = (await import('../../apps/server/src/machine/keys')).newSecret()
    await db.query(
      "insert into machine_keys (name, scopes, hash, start, per_minute, made_by) values ('bench', '{check}', $1, $2, 60000, 'bench')",
      [hash, start],
    )
    const program = createClient(url, '', { authorization: `Bearer ${secret}` })
    const ask = (i: number) => program.call('judge', { body: { value: numberOf(i % (people * 2)) } })
    for (let i = 0; i < 50; i++) await ask(i)
    const { rows: some } = await db.query('select id from contacts limit 1')
    const bare = await median(() => db.query('select * from contacts where id = $1', [some[0].id]), ONE_BY_ONE)
    const one = await median((i) => ask(i * 37), ONE_BY_ONE)
    console.log(`one judgement: ${one.toFixed(2)} ms (median); a read by primary key: ${bare.toFixed(2)} ms`)
    console.log(`${(await rate(ask)).toFixed(0)} judgements a second, ${AT_ONCE} at once`)
    const nobody = createClient(url)
    const nothing = () => nobody.call('readSetup')
    console.log(`${(await rate(nothing)).toFixed(0)} calls a second that ask for next to nothing`)
    const hundred = (i: number) =>
      program.call('judge', { body: { values: Array.from({ length: 100 }, (_, at) => numberOf(i * 100 + at)) } })
    console.log(`${((await rate(hundred)) * 100).toFixed(0)} values a second, a hundred in a call`)
  })
}

const numberOf = (i: number): string => `+4479112${String(i % 100_000).padStart(5, '0')}`

/** Calls a second. */
async function rate(work: (i: number) => Promise<unknown>): Promise<number> {
  const until = performance.now() + SECONDS * 1000
  let done = 0
  const lane = async (at: number): Promise<void> => {
    for (let i = at; performance.now() < until; i += AT_ONCE) {
      await work(i)
      done++
    }
  }
  await Promise.all(Array.from({ length: AT_ONCE }, (_, at) => lane(at)))
  return done / SECONDS
}

import { type ReplayInput, replayFill } from '@upper-field/core/fill'
import { createRandom } from '@upper-field/standins/world'

const PROVIDERS = 8
const ROUNDS = 5
const PER = ['call', 'candidate', 'accepted'] as const

/** Every order of every choice of eight providers, against reading the same answers from their JSON. */
export async function replayBench({ rows }: { rows: number | null }): Promise<void> {
  const input = answersOf(rows ?? 1000)
  const text = JSON.stringify(input)
  const ratios: number[] = []
  let longest = 0
  for (let round = 0; round <= ROUNDS; round++) {
    const reading = timed(() => JSON.parse(text))
    const replaying = timed(() => replayFill(input))
    if (round === 0) continue
    ratios.push(replaying / reading)
    longest = Math.max(longest, replaying)
  }
  ratios.sort((a, b) => a - b)
  console.log(
    `${PROVIDERS} providers, ${input.contacts.length} contacts, ${(text.length / 1000).toFixed(0)} kB of answers`,
  )
  console.log(`replayed in at most ${longest.toFixed(0)} ms`)
  console.log(
    `time against reading them: ${ratios[2]?.toFixed(1)} (${ratios[0]?.toFixed(1)} to ${ratios.at(-1)?.toFixed(1)})`,
  )
}

function timed(work: () => unknown): number {
  const start = performance.now()
  work()
  return performance.now() - start
}

function answersOf(count: number): ReplayInput {
  const random = createRandom('replay')
  const ids = Array.from({ length: PROVIDERS }, (_, i) => `provider-${i}`)
  const candidates = () => Array.from({ length: random.below(4) }, () => ({ usable: random.chance(0.4) }))
  return {
    providers: ids.map((id, i) => ({ id, charge: { per: PER[i % 3] ?? 'call', price: (1 + random.below(40)) / 100 } })),
    checkPrice: 0.005,
    contacts: Array.from({ length: count }, (_, i) => ({
      id: String(i),
      answers: Object.fromEntries(ids.filter(() => random.chance(0.8)).map((id) => [id, candidates()])),
    })),
    budget: count / 10,
  }
}

import { afterAll, beforeAll, describe, expect, it } from '@jest/globals'
import { type Asked, NOT_ASKED, replayAsked } from '@upper-field/core/fill'
import { profileExport } from '@upper-field/demo'
import type { StandIns } from '@upper-field/standins'
import { createRandom, createWorld, worldFor } from '@upper-field/standins/world'
import { bringIn, untilEnded } from '../../../../scripts/bringIn'
import { connectStandIns, newList, startTestServer, type TestServer } from './harness'

const ROWS = 6000
const PROFILES = 900
const SAMPLE = 150
const CHECK_PRICE = 5000
const { seed, ...size } = worldFor(ROWS)
const world = createWorld(seed, size)
const file = profileExport(world, { rows: PROFILES })
const EVERYBODY = ['ferrier', 'quillwort', 'tansy', 'saltmarsh', 'corvane', 'brindle']
const ALL = 90_000_000_000

/** The application with the demo's list of profiles in it, and a world of its own: nothing is known to it yet. */
async function withProfiles() {
  const server = await startTestServer({ LATE_ANSWER_SECONDS: '6' })
  const standIns = await connectStandIns(server, { seed, ...size, speed: 60 })
  // The stand-ins are sixty times as quick as they are in the demo; their limits must not be ours.
  for (const provider of EVERYBODY) {
    const document = await server.api.call('readConnector', { params: { provider } })
    const limit = { ...document.limit, perSecond: null }
    await server.api.call('keepConnector', { params: { provider }, body: { ...document, limit } })
  }
  const listId = await newList(server.api)
  await bringIn(server.api, listId, file, { name: 'Profile export' })
  return { server, standIns, listId }
}

interface FilledRow {
  readonly row: number
  readonly e164: string
}

let planned: Awaited<ReturnType<typeof withProfiles>>
let truth: Awaited<ReturnType<typeof withProfiles>>
beforeAll(async () => {
  planned = await withProfiles()
  truth = await withProfiles()
})
afterAll(async () => {
  for (const { server, standIns } of [planned, truth]) {
    await server.stop()
    await standIns.stop()
  }
})

async function fill(
  { server, listId }: { readonly server: TestServer; readonly standIns: StandIns; readonly listId: string },
  body: { order: string[]; asking?: 'everybody'; sample?: number },
): Promise<string> {
  const job = await server.api.call('startFill', {
    params: { listId },
    body: { checksLines: true, budget: ALL, ...body },
  })
  expect((await untilEnded(server.api, listId, job.id)).state).toBe('done')
  return job.id
}

/** What each provider gives about each row, were it asked: what it charges, its line checks included. */
async function jointAnswers(jobId: string): Promise<Map<number, Asked[]>> {
  const rows = await truth.server.sql<{ row: number; provider: string; found: boolean; own: string; checks: string }>(
    `select c.row, a.provider, a.state = 'accepted' as found,
       (select coalesce(sum(amount), 0) from charges h where h.attempt_id = a.id and h.provider = a.provider) as own,
       (select count(*) from candidates d where d.attempt_id = a.id and (d.outcome in ('accepted', 'out-of-service')
          or (d.outcome = 'fixed-line' and exists (select 1 from line_checks l where l.e164 = d.e164)))) as checks
     from attempts a join contacts c on c.id = a.contact_id where a.job_id = $1`,
    [jobId],
  )
  const answers = new Map<number, Asked[]>()
  for (const { row, provider, found, own, checks } of rows) {
    const mine = answers.get(row) ?? EVERYBODY.map(() => NOT_ASKED)
    mine[EVERYBODY.indexOf(provider)] = { isFound: found, cost: Number(own) + CHECK_PRICE * Number(checks) }
    answers.set(row, mine)
  }
  return answers
}

/** Of all orders that find whoever can be found the cheapest. */
function cheapestOfAll(answers: readonly (readonly Asked[])[]) {
  const { choices } = replayAsked(EVERYBODY, answers, null)
  const most = Math.max(...choices.map(({ usable }) => usable))
  return choices.filter(({ usable }) => usable === most).reduce((a, b) => (b.cost < a.cost ? b : a))
}

/** What each usable costs by the plan of a sample, against the best order, on those who were not in it. */
function ratiosOfSamples(all: readonly (readonly Asked[])[], samples: number): readonly number[] {
  const random = createRandom('samples')
  const ratios = Array.from({ length: samples }, () => {
    const shuffled = all.map((answers) => ({ answers, key: random.below(1_000_000_000) })).sort((a, b) => a.key - b.key)
    const taken = shuffled.map(({ answers }) => answers)
    const rest = taken.slice(SAMPLE)
    const plan = cheapestOfAll(taken.slice(0, SAMPLE)).order
    const { usable, cost } = followed(plan, rest)
    const best = cheapestOfAll(rest)
    return cost / usable / (best.cost / best.usable)
  })
  return ratios.toSorted((a, b) => a - b)
}

/** What asking in an order brings and costs. */
function followed(order: readonly string[], contacts: readonly (readonly Asked[])[]) {
  let usable = 0
  let cost = 0
  for (const answers of contacts) {
    for (const provider of order) {
      const answer = answers[EVERYBODY.indexOf(provider)] ?? NOT_ASKED
      cost += answer.cost
      if (!answer.isFound) continue
      usable++
      break
    }
  }
  return { usable, cost }
}

const at = (sorted: readonly number[], share: number): string =>
  (sorted[Math.floor(share * (sorted.length - 1))] ?? 0).toFixed(3)

describe('a fill by the plan that a sample proposes, on the demo’s profile list', () => {
  it('finds what can be found, of the right people, at hardly more than the best order', async () => {
    const { server, listId } = planned
    const sampled = await fill(planned, { order: EVERYBODY, asking: 'everybody', sample: SAMPLE })
    const sample = await server.api.call('readFillSample', { params: { listId }, query: { order: EVERYBODY.join() } })
    const plan = sample?.cheapest.order ?? []
    const run = await fill(planned, { order: [...plan] })
    const everybody = await jointAnswers(await fill(truth, { order: EVERYBODY, asking: 'everybody' }))

    const asked = await server.sql<{ row: number; state: string }>(
      `select c.row, s.state from fill_searches s join contacts c on c.id = s.contact_id
       where s.job_id = $1 and s.contact_id not in (select contact_id from fill_searches where job_id = $2)`,
      [run, sampled],
    )
    const joint = asked.map(({ row }) => everybody.get(row) ?? EVERYBODY.map(() => NOT_ASKED))
    const knownToSomebody = joint.filter((answers) => answers.some(({ isFound }) => isFound)).length
    const found = asked.filter(({ state }) => state === 'found').length
    const recall = found / knownToSomebody

    const mobiles = await server.sql<FilledRow>(
      `select c.row, f.e164 from fills f join contacts c on c.id = f.contact_id where f.found_as = 'mobile'`,
    )
    const facts = await server.sql<{ e164: string; line_type: string; status: string }>('select * from numbers')
    const register = new Map(facts.map((one) => [one.e164, one]))
    const unusable = mobiles.filter(({ e164 }) => {
      const { line_type, status } = register.get(e164) ?? { line_type: 'unknown', status: 'unknown' }
      return line_type === 'fixed' || status === 'out-of-service'
    })
    const personOf = new Map(file.truth.map(({ row, person }) => [row, world.people.find(({ id }) => id === person)]))
    const anothers = mobiles.filter(({ row, e164 }) => {
      const person = personOf.get(row)
      return person && person.mobile.e164 !== e164 && person.desk.e164 !== e164
    })

    const [spent] = await server.sql<{ spent: string }>('select sum(amount) as spent from charges where job_id = $1', [
      run,
    ])
    const each = Number(spent?.spent) / found
    const best = cheapestOfAll(joint)
    const ratio = each / (best.cost / best.usable)
    const foretold = followed(plan, joint)
    const toForetold = each / (foretold.cost / foretold.usable)
    const ratios = ratiosOfSamples([...everybody.values()], 80)
    const euros = (micros: number) => `€${(micros / 1_000_000).toFixed(3)}`
    console.log(
      [
        `plan: ${plan.join(', ')}; best order: ${best.order.join(', ')}`,
        `found ${found} of ${knownToSomebody} that any provider knows: ${recall.toFixed(3)}`,
        `each usable ${euros(each)}, by the best order ${euros(best.cost / best.usable)}: ratio ${ratio.toFixed(3)}`,
        `by the same plan replayed on what everybody says ${euros(foretold.cost / foretold.usable)}: ratio ${toForetold.toFixed(3)}`,
        `of 80 other samples of ${SAMPLE}: ratio ${at(ratios, 0.5)} (median), ${at(ratios, 0.9)} (nine of ten are below)`,
        `accepted ${mobiles.length}, called fixed or dead ${unusable.length}, of another person ${anothers.length}`,
      ].join('\n'),
    )
    expect(recall).toBeGreaterThanOrEqual(0.9)
    expect(unusable).toEqual([])
    expect(anothers.length).toBeLessThanOrEqual(0.01 * mobiles.length)
    // A run costs what its plan does when it is replayed: the figures that plans are chosen by are true.
    expect(Math.abs(toForetold - 1)).toBeLessThanOrEqual(0.05)
    // Whom a sample takes is left to chance: what it costs is judged by what samples cost as a rule.
    expect(Number(at(ratios, 0.5))).toBeLessThanOrEqual(1.05)
    expect(ratio).toBeLessThanOrEqual(1.15)
  })
})

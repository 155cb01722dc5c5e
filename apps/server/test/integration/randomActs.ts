import { expect } from '@jest/globals'
import { CallFailed } from '@upper-field/contract'
import { DEFAULT_SURVIVORSHIP } from '@upper-field/core/pair'
import type { Random } from '@upper-field/standins/world'
import { untilEnded } from '../../../../scripts/bringIn'
import { bringText, newList, type TestServer } from './harness'

const GIVEN = ['Maren', 'Tom', 'Priya', 'Juno', 'M.', 'Dr Ansel', '']
const FAMILY = ['Oldershaw', 'Kestle', 'Hallowell', 'OLDERSHAW', 'Vaubert']
const COMPANIES = ['Heron Camping', 'heron camping ltd', 'Larch Café', '']

/** Rows of few people written in many ways, so that acts on them touch others too. */
function rowsOf(random: Random, rows: number): string {
  const lines = Array.from({ length: rows }, () =>
    [
      `${random.pick(GIVEN)} ${random.pick(FAMILY)}`.trim(),
      random.pick(COMPANIES),
      random.pick(['07911 2044', '+44 7911 2044', '01665 5550']) + String(10 + random.below(25)),
      random.pick(['', `p${random.below(20)}@causeway.example`, `P${random.below(20)} @causeway.example`]),
      random.pick(['GB', 'United Kingdom', '']),
    ].join(','),
  )
  return `name,company,phone,mail,country\n${lines.join('\n')}\n`
}

/** Something that a person or a program does to a list; null where there was nothing to be done. */
export type Act = () => Promise<unknown>

export interface ActsOnList {
  readonly listId: string
  /** Acts on some contacts, whose counts follow them. */
  readonly few: Readonly<Record<string, Act>>
  /** Acts on a whole list, after which it is counted whole. */
  readonly whole: Readonly<Record<string, Act>>
  /** Acts that can be taken back: each gives how. Null where there was nothing to be done. */
  readonly back: Readonly<Record<string, () => Promise<Act | null>>>
}

/**
 * A list of two batches, and acts on whatever of it chance picks.
 * @param texts the files it is made of, where they are not to be made up
 */
export async function actsOnList(
  server: TestServer,
  random: Random,
  texts: readonly string[] = [rowsOf(random, 120), rowsOf(random, 80)],
): Promise<ActsOnList> {
  const listId = await newList(server.api)
  for (const text of texts) await bringText(server.api, listId, text, { defaultCountry: 'GB' })
  const { call } = server.api
  const optOuts = await call('makeSuppressionList', { body: { name: `Opt-outs ${listId}`, kind: 'opt-outs' } })
  await call('keepLaneRules', {
    params: { listId },
    body: {
      rules: [
        { lane: 'fresh', name: 'Fresh', use: 'texts', filter: 'not sent:people' },
        { lane: 'text', name: 'Text', use: 'texts', filter: 'line:mobile' },
      ],
    },
  })
  const someone = async () => {
    const rows = await server.sql<{ id: string }>('select id from contacts where list_id = $1 order by id', [listId])
    return Number(random.pick(rows).id)
  }
  const until = async (job: Promise<{ readonly id: string }>) => untilEnded(server.api, listId, (await job).id)
  const edits: string[] = []
  const few: Readonly<Record<string, Act>> = {
    edit: async () => {
      const column = random.pick(['number', 'full-name', 'email', 'company', 'city'])
      const value = random.pick(['07911 204411', '', 'Tom Kestle', 'x@postbox.example', 'nothing at all'])
      const act = await call('makeEdits', {
        params: { listId },
        body: { edits: [{ contactId: await someone(), column, value }] },
      })
      edits.push(act.id)
    },
    undo: async () => {
      const id = edits.pop()
      if (id) await untilEnded(server.api, listId, (await call('takeActBack', { params: { actId: id } })).id)
    },
    lane: async () =>
      call('placeByHand', {
        params: { contactId: await someone() },
        body: { lane: random.pick([null, 'parked', 'text', 'call']) },
      }),
    suppress: async () =>
      call('suppressContact', {
        params: { contactId: await someone() },
        body: { suppressionListId: optOuts.id, reason: 'asked' },
      }),
    'let go': async () => {
      const { entries } = await call('readSuppressionEntries', { params: { suppressionListId: optOuts.id } })
      const [entry] = entries
      if (entry) await call('dropSuppressionEntry', { params: { entryId: entry.id } })
    },
    send: async () => {
      const filter = random.pick(['Kestle', 'Maren', 'lane:fresh Hallowell', 'company:heron'])
      const { jobId } = await call('makeEdition', {
        params: { listId },
        body: { destination: 'people', form: 'people', filter },
      })
      await untilEnded(server.api, listId, jobId)
      // Lanes follow: whoever is fresh was sent nothing.
      expect(
        await server.sql(
          `select 1 from contacts c join edition_members m on m.span = c.id / 8192 and get_bit(m.bits, (c.id % 8192)::int) = 1
           where c.list_id = $1 and c.lane = 'fresh' and c.lane_by_hand = ''`,
          [listId],
        ),
      ).toEqual([])
    },
    split: async () => {
      const open = await server.sql<{ id: string }>(
        'select id from joins where list_id = $1 and undone_at is null order by id limit 5',
        [listId],
      )
      const one = open[0]
      if (one) await call('takeApart', { params: { joinId: Number(one.id) } })
    },
    add: async () =>
      call('addContacts', {
        params: { listId },
        body: {
          contacts: [
            {
              id: `a${random.below(1_000_000)}`,
              fields: { 'full-name': 'Tom Kestle', number: `079112044${10 + random.below(25)}` },
            },
          ],
          country: 'GB',
        },
      }),
    pair: () => until(call('runPairing', { params: { listId }, body: { thresholds: { join: 14, decide: -10 } } })),
  }
  const calls: string[] = []
  const someLine = async () => {
    const lines = await server.sql<{ id: string; e164: string }>(
      `select c.id, n.e164 from contacts c join contact_numbers n on n.contact_id = c.id
       where c.list_id = $1 and c.joined_into is null order by c.id, n.position`,
      [listId],
    )
    const line = lines.length === 0 ? null : random.pick(lines)
    return line && { contactId: Number(line.id), e164: line.e164 }
  }
  /** The batch is given back at once: what was begun is seen among the jobs. */
  const untilOfBatch = async (batch: Promise<unknown>) => {
    await batch
    for (const { id } of await call('readJobs', { params: { listId } })) await untilEnded(server.api, listId, id)
  }
  const batchIn = async (state: string) => {
    const rows = await server.sql<{ id: string }>(
      'select id from batches where list_id = $1 and state = $2 and rows > 20 order by id',
      [listId, state],
    )
    return rows.length === 0 ? null : random.pick(rows).id
  }
  const turnStep = async (at: number) => {
    const { routine } = await call('readTidy', { params: { listId } })
    const steps = routine.steps.map((step, i) =>
      i === at % routine.steps.length ? { ...step, isOn: !step.isOn } : step,
    )
    await until(call('applyRoutine', { params: { listId }, body: { routine: { version: 1, steps }, name: null } }))
  }
  const whole: Readonly<Record<string, Act>> = {
    'bring in': () => bringText(server.api, listId, rowsOf(random, 15), { defaultCountry: 'GB' }),
    'bulk edit': () => {
      const body = { filter: random.pick(FAMILY), column: 'company', value: random.pick(COMPANIES) }
      return until(call('makeBulkEdit', { params: { listId }, body }))
    },
    'leave out': async () => {
      const code = random.pick(['company-legal-form', 'number-form', 'name-case', 'email-mended'] as const)
      await call('leaveOut', { params: { listId }, body: { code, contactId: await someone() } })
    },
    'leave out widely': async () => {
      const code = random.pick(['company-case', 'number-form', 'name-order'] as const)
      const batchId = await batchIn('ready')
      await until(call('leaveOutWidely', { params: { listId }, body: batchId ? { code, batchId } : { code } }))
    },
    'note a call': async () => {
      const line = await someLine()
      if (!line) return
      const outcome = random.pick(['reached', 'no-answer', 'wrong-number', 'asked-not-to'] as const)
      const body = { ...line, outcome, againAt: null }
      calls.push((await call('noteCall', { params: { listId }, body })).id)
    },
    'take a call back': async () => {
      const callId = calls.pop()
      if (callId) await call('undoCall', { params: { callId } })
    },
    forget: async () => {
      if (random.chance(0.3)) await call('forgetPerson', { params: { contactId: await someone() } })
    },
    check: async () => {
      const of = random.pick(['numbers', 'addresses'] as const)
      const body = { of, filter: '', agreed: 1_000_000_000 }
      await until(call('startCheck', { params: { listId }, body }))
    },
    fill: () => {
      const how = random.pick([
        { order: ['tansy', 'brindle'] },
        { order: ['ferrier'], options: { wants: ['mobile' as const, 'work-email' as const] } },
      ])
      const body = { ...how, checksLines: random.chance(0.5), budget: 3_000_000 }
      return until(call('startFill', { params: { listId }, body }))
    },
    'take a found value back': async () => {
      const found = await server.sql<{ id: string }>(
        'select f.id from fills f join contacts c on c.id = f.contact_id where c.list_id = $1 and undone_at is null order by f.id',
        [listId],
      )
      if (found.length > 0) await call('takeFillBack', { params: { fillId: random.pick(found).id } })
    },
    decide: async () => {
      const { pairs } = await call('readPairs', { params: { listId }, query: {} })
      if (pairs.length === 0) return
      const { id, sides } = random.pick(pairs)
      const decision = random.pick(['join', 'join', 'apart'] as const)
      const chosen = decision === 'join' && random.chance(0.5) ? { company: random.pick(sides).contactId } : {}
      await call('decidePair', {
        params: { pairId: id },
        body: { decision, alike: random.chance(0.3), also: [], chosen },
      })
    },
    'take a decision back': async () => {
      const made = await call('readDecided', { params: { listId } })
      if (made.length > 0) await call('takeDecisionBack', { params: { decisionId: random.pick(made).id } })
    },
    survivorship: () => {
      const rule = random.pick(['first', 'latest', 'fullest', 'commonest'] as const)
      const body = { ...DEFAULT_SURVIVORSHIP, name: rule, company: rule, emails: rule }
      return until(call('changeSurvivorship', { params: { listId }, body }))
    },
    tidy: () => turnStep(random.below(20)),
    'take a batch back': async () => {
      const batchId = await batchIn('ready')
      if (batchId) await untilOfBatch(call('takeBatchBack', { params: { batchId } }))
    },
    'bring it back': async () => {
      const batchId = await batchIn('taken-back')
      if (batchId) await untilOfBatch(call('bringBatchBack', { params: { batchId } }))
    },
    'read a batch anew': async () => {
      const batchId = await batchIn('ready')
      if (!batchId) return
      const { mapping } = await call('readBatch', { params: { batchId } })
      const defaultCountry = random.pick(['GB', 'DE', null])
      await until(call('readBatchAnew', { params: { batchId }, body: { mapping, defaultCountry } }))
    },
  }
  const actBack = (id: string) => async () => {
    await until(call('takeActBack', { params: { actId: id } }))
  }
  const actOf = async (job: Promise<{ readonly id: string }>) => String((await until(job)).result.actId)
  const back: ActsOnList['back'] = {
    edit: async () => {
      const column = random.pick(['number', 'full-name', 'email', 'company'])
      const value = random.pick(['07911 204411', '', 'Tom Kestle', 'x@postbox.example'])
      const body = { edits: [{ contactId: await someone(), column, value }] }
      return actBack((await call('makeEdits', { params: { listId }, body })).id)
    },
    'bulk edit': async () => {
      const body = { filter: '', column: random.pick(['company', 'number']), value: '07911 204412' }
      return actBack(await actOf(call('makeBulkEdit', { params: { listId }, body })))
    },
    'leave out': async () => {
      const body = { code: random.pick(['number-form', 'company-legal-form'] as const), contactId: await someone() }
      return actBack((await call('leaveOut', { params: { listId }, body })).id)
    },
    'leave out widely': async () =>
      actBack(await actOf(call('leaveOutWidely', { params: { listId }, body: { code: 'number-form' } }))),
    suppress: async () => {
      const contactId = await someone()
      const params = { suppressionListId: optOuts.id }
      const entries = async () => (await call('readSuppressionEntries', { params })).entries
      const known = new Set((await entries()).map(({ id }) => id))
      const body = { ...params, reason: 'asked' }
      if (!(await isDone(() => call('suppressContact', { params: { contactId }, body })))) return null
      const added = (await entries()).filter(({ id }) => !known.has(id))
      return async () => {
        for (const { id } of added) await call('dropSuppressionEntry', { params: { entryId: id } })
      }
    },
    decide: async () => {
      const { pairs } = await call('readPairs', { params: { listId }, query: {} })
      if (pairs.length === 0) return null
      const body = { decision: 'join' as const, alike: random.chance(0.5), also: [], chosen: {} }
      const { id } = await call('decidePair', { params: { pairId: random.pick(pairs).id }, body })
      return () => call('takeDecisionBack', { params: { decisionId: id } })
    },
    'note a call': async () => {
      const line = await someLine()
      if (!line) return null
      const body = { ...line, outcome: random.pick(['wrong-number', 'asked-not-to'] as const), againAt: null }
      const { id } = await call('noteCall', { params: { listId }, body })
      return () => call('undoCall', { params: { callId: id } })
    },
    'take a batch back': async () => {
      const batchId = await batchIn('ready')
      if (!batchId) return null
      await untilOfBatch(call('takeBatchBack', { params: { batchId } }))
      return () => untilOfBatch(call('bringBatchBack', { params: { batchId } }))
    },
    tidy: async () => {
      const at = random.below(20)
      await turnStep(at)
      return () => turnStep(at)
    },
  }
  return { listId, few, whole, back }
}

/** @returns false where there was nothing to be done for whoever was picked: already so, or gone */
export const isDone = (act: Act): Promise<boolean> =>
  act().then(
    () => true,
    (error: unknown) => {
      if (error instanceof CallFailed && error.status < 500) return false
      throw error
    },
  )

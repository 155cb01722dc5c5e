import { afterAll, beforeAll, describe, expect, it } from '@jest/globals'
import { holdWrites } from './holdWrites'
import { Sending } from './sending'
import { untilIs } from './until'

let sending: Sending

beforeAll(async () => {
  sending = await Sending.start(800)
})
afterAll(() => sending.stop())

describe('what a network tells', () => {
  it('that it is usable is read with what came of the delivery, never without', async () => {
    const noting = await holdWrites(sending.server, { column: 'matched', when: 'new.matched is not null' })
    const { id } = await sending.makeAudience('brassbell', { name: 'Read at once' })
    await sending.prepare(id)
    await sending.send(id)
    await noting.isHeld()
    expect((await sending.read(id)).state).not.toBe('usable')
    await noting.letGo()
    const told = await sending.settled(id)
    await noting.forget()
    expect(told.state).toBe('usable')
    expect(told.deliveries[0]?.matched).toBeGreaterThan(0)
  })
})

describe('what a network does wrong', () => {
  it('a part it refuses is told, and is all that the next delivery sends', async () => {
    const { id } = await sending.makeAudience('northpin', { name: 'Half' })
    await sending.server.sql(
      `update destinations set document = jsonb_set(document, '{network,part,most}', '100') where id = 'northpin'`,
    )
    await sending.prepare(id)
    sending.standIns.toggle('northpin', 'half-refused')
    const sent = await sending.send(id)
    sending.standIns.toggle('northpin', 'half-refused')
    expect(sent).toMatchObject({ state: 'done', refusedParts: 4, refusedLines: 400, added: 400 })
    expect(sent.refusal).toMatchObject({ says: 'It could not read a part.' })
    expect(await sending.prepare(id)).toMatchObject({ people: 400, difference: { comes: 400, stays: 400 } })
    expect(await sending.send(id)).toMatchObject({ added: 400, refusedParts: 0 })
    expect(sending.booksOf('northpin', 'Half').lines).toBe(800)
  })

  it('an audience it forgets is sent whole the next time', async () => {
    const { id } = await sending.makeAudience('tallow', { name: 'Forgotten' })
    await sending.prepare(id)
    await sending.send(id)
    sending.standIns.toggle('tallow', 'forgetful')
    const forgot = await sending.server.api.call('lookAtAudience', { params: { audienceId: id } })
    sending.standIns.toggle('tallow', 'forgetful')
    expect(forgot).toMatchObject({ state: 'refused', refusal: { code: 'no-such-audience' }, people: 0 })
    expect((await sending.prepare(id)).difference).toMatchObject({ comes: 800 })
    expect(await sending.send(id)).toMatchObject({ state: 'done', added: 800 })
  })

  it('that it is away fails the delivery with its reason, and nothing is counted as sent', async () => {
    const { id } = await sending.makeAudience('brassbell', { name: 'Away' })
    const { difference } = await sending.prepare(id)
    sending.standIns.toggle('brassbell', 'nonsense')
    const body = { editionId: difference?.editionId ?? '', account: 'bb-4410' }
    await expect(sending.server.api.call('deliverEdition', { params: { audienceId: id }, body })).rejects.toMatchObject(
      {
        code: 'odd-answer',
      },
    )
    sending.standIns.toggle('brassbell', 'nonsense')
    expect(await sending.read(id)).toMatchObject({ people: 0, state: 'not-sent' })
  })
})

describe('two deliveries of one audience at once', () => {
  it('are one: the other is told who began', async () => {
    const { id } = await sending.makeAudience('brassbell', { name: 'Twice' })
    const { difference } = await sending.prepare(id)
    const body = { editionId: difference?.editionId ?? '', account: 'bb-4410' }
    const both = await Promise.allSettled([
      sending.server.api.call('deliverEdition', { params: { audienceId: id }, body }),
      sending.server.api.call('deliverEdition', { params: { audienceId: id }, body }),
    ])
    expect(both.map(({ status }) => status).sort()).toEqual(['fulfilled', 'rejected'])
    await untilIs(
      () => sending.read(id),
      ({ latest }) => latest?.state === 'done',
    )
    expect(sending.booksOf('brassbell', 'Twice')).toMatchObject({ lines: 800, odd: 0 })
  })
})

describe('whoever says no while a delivery is under way', () => {
  it('is in no part that was not sent yet, and has to leave where the part was', async () => {
    const { sql } = sending.server
    await sql(
      `update destinations set document = jsonb_set(document, '{network,part,most}', '100') where id = 'brassbell'`,
    )
    const { id } = await sending.makeAudience('brassbell', { name: 'Saying no' })
    const { difference, account } = await sending.prepare(id)
    const editionId = difference?.editionId ?? ''
    const lines = await sql<{ contact_id: string }>(
      'select contact_id from edition_lines where edition_id = $1 order by key',
      [editionId],
    )
    const booking = await holdWrites(sending.server, { column: 'added', when: 'old.added = 0 and new.added > 0' })
    const delivery = await sending.server.api.call('deliverEdition', {
      params: { audienceId: id },
      body: { editionId, account: account.id },
    })
    await booking.isHeld()
    const no = await sending.server.api.call('makeSuppressionList', { body: { name: 'Meanwhile', kind: 'opt-outs' } })
    for (const line of [lines[5], lines.at(-5)])
      await sending.server.api.call('suppressContact', {
        params: { contactId: Number(line?.contact_id) },
        body: { suppressionListId: no.id, reason: 'said so' },
      })
    await booking.letGo()
    const told = await untilIs(
      () => sending.read(id),
      ({ latest }) => latest?.id === delivery.id && latest.state === 'done',
    )
    await booking.forget()
    expect(told.latest).toMatchObject({ added: 799, refusedParts: 0 })
    const board = await sending.server.api.call('readAudiences', { params: { listId: sending.listId } })
    expect(board.find((one) => one.id === id)).toMatchObject({ people: 799, owedRemovals: 1 })
    expect(sending.booksOf('brassbell', 'Saying no')).toMatchObject({ lines: 799, odd: 0 })
  })
})

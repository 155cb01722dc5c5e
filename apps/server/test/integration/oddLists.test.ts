import { afterAll, beforeAll, describe, expect, it } from '@jest/globals'
import type { Step } from '@upper-field/core/tidy'
import { bringText, newList, startTestServer, type TestServer } from './harness'
import { tidiedLists } from './tidiedLists'

let server: TestServer
let lists: ReturnType<typeof tidiedLists>
beforeAll(async () => {
  server = await startTestServer()
  lists = tidiedLists(server.api)
})
afterAll(() => server.stop())

const listOf = async (text: string) => {
  const listId = await newList(server.api)
  await bringText(server.api, listId, text, { defaultCountry: 'GB' })
  return listId
}
const pageOf = (listId: string, filter = '') =>
  server.api.call('readContacts', { params: { listId }, query: { filter } })
/** How many a filter means, however many they are. */
const countOf = async (listId: string, filter = '') => {
  const { lane } = await server.api.call('readPiles', { params: { listId }, query: { filter } })
  return Object.values(lane).reduce((sum, n) => sum + n, 0)
}
const batchesOf = (listId: string) => server.api.call('readBatches', { params: { listId } })

describe('a batch of which nothing can be read', () => {
  const rows = Array.from({ length: 40 }, (_, i) => `Person ${i},ask reception`)
  const text = `name,phone\n${rows.join('\n')}\n`

  it('is refused with a sentence before it is sent, where no column reaches anybody', async () => {
    await expect(listOf(text)).rejects.toThrow(/^No column tells how to reach or find anybody/)
  })

  it('comes in whole where somebody says what its columns are: each row is there, and counted as unreadable', async () => {
    const listId = await newList(server.api)
    await bringText(server.api, listId, text, { mapping: ['full-name', 'number'] })
    const [batch] = await batchesOf(listId)
    expect(batch).toMatchObject({ state: 'ready', rows: 40, held: 0 })
    const { terrace } = await server.api.call('readList', { params: { listId } })
    const fell = terrace.flatMap(({ changes }) => changes).find(({ riser }) => riser === 'nothing-readable')
    expect([fell?.by, await countOf(listId, 'fell:nothing-readable')]).toEqual([-40, 40])
  })
})

describe('thousands of rows with one key', () => {
  it('of one person are one contact, which can be told from the rows it is made of', async () => {
    const listId = await listOf(`name,phone\n${'Maren Oldershaw,07911 204481\n'.repeat(2000)}`)
    const page = await pageOf(listId)
    expect([page.total, page.contacts[0]?.joined]).toEqual([1, 1999])
    // Suppressed, all of it is: no row of it is left to be rung.
    const optOuts = await server.api.call('makeSuppressionList', { body: { name: 'Opt-outs', kind: 'opt-outs' } })
    await server.api.call('suppressContact', {
      params: { contactId: page.contacts[0]?.id ?? 0 },
      body: { suppressionListId: optOuts.id, reason: 'asked' },
    })
    expect((await pageOf(listId, 'lane:text')).total).toBe(0)
  })

  it('of one person that differ in what else they say make the contact that few of them make, and tell how many they are', async () => {
    const towns = ['', 'Kelso', 'Kelso', 'Oxford']
    const line = (i: number) =>
      `Maren Oldershaw,${i === 0 ? '01665 555018' : '07911 204481'},${towns[i % 4]},${i % 7 === 0 ? 'maren@kinpost.example' : ''},order ${i}`
    const csv = (rows: number) => {
      const lines = Array.from({ length: rows }, (_, i) => line(i))
      return `name,phone,town,mail,note\n${[...lines, 'Maren Oldershaw,01665 555018,Berwick,maren@kinpost.example,'].join('\n')}\n`
    }
    const [few, many] = [await listOf(csv(40)), await listOf(csv(21_000))]
    const [ofFew, ofMany] = [await pageOf(few), await pageOf(many)]
    const shown = ({ contacts, total }: typeof ofFew) => ({
      total,
      contacts: contacts.map(({ id: _, batchId: __, joined: ___, ...one }) => one),
    })
    expect(shown(ofMany)).toEqual(shown(ofFew))
    expect(ofMany.contacts.map(({ joined }) => joined)).toEqual([21_000])
    const { story, numbers } = await server.api.call('readStory', {
      params: { contactId: ofMany.contacts[0]?.id ?? 0 },
    })
    expect(numbers.map(({ e164 }) => e164)).toEqual(['+441665555018', '+447911204481'])
    expect(story.filter(({ what }) => what.kind === 'joined')).toHaveLength(100)
    expect(story.find(({ what }) => what.kind === 'joined-more')?.what).toEqual({ kind: 'joined-more', rows: 20_900 })
  })

  it('of as many people are a shared line: nobody is joined, and nobody stands in for the others', async () => {
    const rows = Array.from({ length: 1500 }, (_, i) => `Given${i} Family${i},01665 555018`)
    const listId = await listOf(`name,phone\n${rows.join('\n')}\n`)
    const shared = await server.api.call('readSharedLines', { params: { listId } })
    expect([await countOf(listId), shared.total, shared.lines[0]?.holders]).toEqual([1500, 1, 1500])
    expect(await countOf(listId, 'is:shared')).toBe(1500)
  })
})

describe('two changes of a whole list at once', () => {
  it('are made one after the other: what was asked for last stands, whole', async () => {
    const rows = Array.from(
      { length: 1500 },
      (_, i) => `PERSON ${i},Heron Ltd,07911 2${String(i).padStart(5, '0')},OX${i}`,
    )
    const text = `name,company,phone,town\n${rows.join('\n')}\n`
    const [both, alone] = [await listOf(text), await listOf(text)]
    const { routine } = await lists.state(both)
    const without = (kind: string) => routine.steps.filter((step: Step) => step.kind !== kind)
    const start = (listId: string, steps: readonly Step[]) =>
      server.api.call('applyRoutine', {
        params: { listId },
        body: { routine: { version: 1, steps: [...steps] }, name: null },
      })
    const jobs = [await start(both, without('company')), await start(both, without('names'))]
    for (const job of jobs) expect(await lists.ended(both, job)).toMatchObject({ state: 'done' })
    await lists.ended(alone, await start(alone, without('names')))
    const shown = async (listId: string) => {
      const { contacts, ...rest } = await lists.picture(listId)
      return { ...rest, contacts: contacts.map(({ batchId: _, ...one }) => one) }
    }
    expect(await shown(both)).toEqual(await shown(alone))
  })
})

describe('a step that changes every value', () => {
  it('is made of all and taken back from all: what was there is there again', async () => {
    const rows = Array.from({ length: 2000 }, (_, i) => `Person ${i},Heron ${i},07911 2${String(i).padStart(5, '0')}`)
    const listId = await listOf(`name,company,phone\n${rows.join('\n')}\n`)
    const before = await lists.picture(listId)
    const all: Step = {
      id: 'all',
      kind: 'replace',
      isOn: true,
      options: { columns: ['company'], find: '.+', with: 'One', isPattern: true, minds: 'nothing' },
    }
    const job = await lists.apply(listId, (steps) => [...steps, all])
    expect(job).toMatchObject({ state: 'done', result: { contacts: 2000 } })
    expect(await countOf(listId, 'company=One')).toBe(2000)
    await lists.ended(listId, await server.api.call('takeActBack', { params: { actId: String(job?.result.actId) } }))
    expect(await lists.picture(listId)).toEqual(before)
  })
})

import { untilEnded } from '../bringIn'
import { withBenchList } from './benchServer'
import { peopleFile } from './peopleFile'
import { median } from './timing'

const TIMES = 9
const FAR = 1000

/**
 * Single acts of a person on one list, and the views that are opened most, each beside an update of one contact by its
 * primary key.
 */
export async function actsBench({ rows }: { rows: number | null }): Promise<void> {
  const people = rows ?? 100_000
  await withBenchList(peopleFile(people), async ({ api, db, listId }) => {
    const optOuts = await api.call('makeSuppressionList', { body: { name: 'Opt-outs', kind: 'opt-outs' } })
    const { rows: first } = await db.query<{ id: string }>(
      'select id from contacts where list_id = $1 order by id limit 1',
      [listId],
    )
    const contactId = (i: number) => Number(first[0]?.id ?? 0) + 17 + i * Math.min(FAR, Math.floor(people / 100))
    const edit = (column: string, value: string) => (i: number) =>
      api.call('makeEdits', { params: { listId }, body: { edits: [{ contactId: contactId(i), column, value }] } })
    const made: string[] = []
    for (let i = 0; i < TIMES; i++) made.push((await edit('city', 'Seahouses')(i)).id)
    await api.call('addContacts', {
      params: { listId },
      body: { contacts: Array.from({ length: TIMES }, (_, i) => [twice(`c${i}`, i), twice(`d${i}`, i)]).flat() },
    })
    const { rows: joins } = await db.query<{ id: string }>('select id from joins where list_id = $1 order by id', [
      listId,
    ])
    const acts: Readonly<Record<string, (i: number) => Promise<unknown>>> = {
      'one row by its primary key': (i) =>
        db.query("update contacts set hand_slip = hand_slip || 'x' where id = $1", [contactId(i)]),
      'a city is edited': edit('city', 'Craster'),
      'a number is edited': edit('number', '+447911204481'),
      'an edit is taken back': async (i) => {
        const job = await api.call('takeActBack', { params: { actId: made[i] ?? '' } })
        if (job.state !== 'done') await untilEnded(api, listId, job.id)
      },
      'moved to a lane by hand': (i) =>
        api.call('placeByHand', { params: { contactId: contactId(i) }, body: { lane: 'parked' } }),
      'let go from there': (i) =>
        api.call('placeByHand', { params: { contactId: contactId(i) }, body: { lane: null } }),
      suppressed: (i) =>
        api.call('suppressContact', {
          params: { contactId: contactId(i + TIMES) },
          body: { suppressionListId: optOuts.id, reason: 'asked' },
        }),
      'added by a program': (i) =>
        api.call('addContacts', {
          params: { listId },
          body: { contacts: [{ id: `b${i}`, fields: { 'full-name': 'Tom Kestle', number: `+4479113${10_000 + i}` } }] },
        }),
      'two are taken apart': (i) => api.call('takeApart', { params: { joinId: Number(joins[i]?.id) } }),
      'the list is opened': () => api.call('readList', { params: { listId } }),
      'its first page': () => api.call('readContacts', { params: { listId } }),
      'its counts': () => api.call('readPiles', { params: { listId }, query: { filter: '' } }),
      'cells that need a hand': () => api.call('readHand', { params: { listId } }),
      'a story': (i) => api.call('readStory', { params: { contactId: contactId(i) } }),
    }
    for (const [name, act] of Object.entries(acts)) console.log(`${name}: ${(await median(act, TIMES)).toFixed(1)} ms`)
  })
}

/** Somebody who comes twice, and is joined. */
const twice = (id: string, i: number) => ({
  id,
  fields: { 'full-name': 'Priya Hallowell', number: `+49151561${10_000 + i}` },
})

import type { ApiClient, Job } from '@upper-field/contract'
import type { Step } from '@upper-field/core/tidy'
import { untilEnded } from '../../../../scripts/bringIn'
import { bringText, newList } from './harness'

const FILE = `name,company,phone,mail,country,stand
"OLDERSHAW, MAREN",Causeway Camping Ltd,1665555018,maren@causeway.example,United Kingdom,4
Priya Hallowell,Thornbury Nurseries,07911 204481,priya@gmial.com,UK,5
Tom Kestle,Seerose,079112044811,tom@seerose.example,GB,6
Sanne van der Veen,Fernhill BV,020 7946 0xxx,SANNE@fernhill.example,NL,7
`

/** Lists to tidy on a server, and what is asked of them in test after test. */
export function tidiedLists(api: ApiClient) {
  const listWith = async (text = FILE, name = 'First') => {
    const listId = await newList(api)
    await bringText(api, listId, text, { name })
    return listId
  }
  const state = (listId: string) => api.call('readTidy', { params: { listId } })
  const contacts = async (listId: string) =>
    (await api.call('readContacts', { params: { listId }, query: {} })).contacts
  const find = async (listId: string, part: string) => {
    const found = (await contacts(listId)).find(({ fullName }) => fullName.toLowerCase().includes(part))
    if (!found) throw new Error(`nobody is called ${part}`)
    return found
  }
  const ended = async (listId: string, job: Job) => {
    await untilEnded(api, listId, job.id)
    return (await api.call('readJobs', { params: { listId } })).find(({ id }) => id === job.id)
  }
  /** Everything a list shows, for comparing two states of it. */
  const picture = async (listId: string) => ({
    contacts: (await contacts(listId)).map(({ id: _, ...rest }) => rest),
    counts: (await state(listId)).counts,
    terrace: (await api.call('readList', { params: { listId } })).terrace,
  })
  const apply = async (
    listId: string,
    change: (steps: readonly Step[]) => readonly Step[],
    name: string | null = null,
  ) => {
    const { routine } = await state(listId)
    const body = { routine: { version: 1, steps: change(routine.steps) }, name }
    return ended(listId, await api.call('applyRoutine', { params: { listId }, body }))
  }
  return { listWith, state, contacts, find, ended, picture, apply }
}

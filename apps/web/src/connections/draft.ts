import { ConnectorDocument } from '@upper-field/contract'
import { type Draft as DraftOf, inLines, readDocument } from '../documents/draft'

/** A connector that is being written: what it is so far, or what is wrong with it. */
export type Draft = DraftOf<ConnectorDocument>

/** Reads a text as a connector, as it is typed. */
export const readDraft = (text: string): Draft => readDocument(ConnectorDocument, text)

/** What a connector begins as, with something to change at every place. */
export const blank = (): string =>
  inLines({
    format: 1,
    id: 'new-service',
    name: 'New service',
    about: '',
    gives: ['mobile'],
    accepts: ['name-and-company'],
    address: 'https://api.new-service.example',
    key: { in: 'header', name: 'authorization', value: 'Bearer {{ key }}' },
    one: {
      call: { method: 'POST', path: '/find', body: '{"name": {{ name }}, "company": {{ company }}}' },
      answers: { how: 'at-once' },
      items: '$.found[*]',
    },
    fields: { number: '$.number', score: '$.score' },
    charge: { per: 'call', euros: 0.05 },
    mostCandidates: 3,
  })

/** A document as it is written into the editor: nothing that is as it is anyway. */
export function textOf(document: ConnectorDocument): string {
  const { words, many, report, statement, isPaidFor, countries, ...rest } = document
  const shown = {
    ...rest,
    ...(Object.keys(words).length > 0 ? { words } : {}),
    ...(countries ? { countries } : {}),
    ...(many ? { many } : {}),
    ...(report ? { report } : {}),
    ...(statement ? { statement } : {}),
    ...(isPaidFor ? { isPaidFor } : {}),
  }
  return inLines(shown)
}

import { DestinationDocument } from '@upper-field/contract'
import { type Draft, inLines, readDocument } from '../documents/draft'

export const readDestination = (text: string): Draft<DestinationDocument> => readDocument(DestinationDocument, text)

/** What a destination begins as, with something to change at every place. */
export const blankDestination = (): string =>
  inLines({
    format: 1,
    id: 'new-network',
    name: 'New network',
    about: '',
    audiences: [
      {
        takes: 'people',
        columns: [
          { heading: 'email', field: 'email', form: ['trim', 'lower'], isHashed: true },
          { heading: 'phone', field: 'number', form: ['e164'], isHashed: true },
          { heading: 'country', field: 'country', form: ['country'] },
        ],
        rules: { everyRow: ['country'], someOf: ['email', 'number'] },
      },
    ],
    hashing: 'either',
  })

export const destinationText = (document: DestinationDocument): string => inLines(document)

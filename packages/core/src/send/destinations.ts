export type Identifier = 'email' | 'number'
export type ColumnSource = Identifier | 'given-name' | 'family-name' | 'postal-code' | 'country'

/** One column of an audience file; identifiers may be repeated side by side. */
export interface DestinationColumn {
  readonly heading: string
  readonly source: ColumnSource
  readonly repeats: number
  /** Hashed where the edition is a hashed one. Country and postal code are compared as they are. */
  readonly isHashed: boolean
}

/** What one ad network accepts, as data. */
export interface Destination {
  readonly id: string
  readonly name: string
  readonly columns: readonly DestinationColumn[]
  readonly needsCountry: boolean
  /** Audiences below are used but their size is not told. */
  readonly sizeFloor: number
}

export const BRASSBELL: Destination = {
  id: 'brassbell',
  name: 'Brassbell',
  columns: [
    { heading: 'mail', source: 'email', repeats: 3, isHashed: true },
    { heading: 'line', source: 'number', repeats: 3, isHashed: true },
    { heading: 'given', source: 'given-name', repeats: 1, isHashed: true },
    { heading: 'family', source: 'family-name', repeats: 1, isHashed: true },
    { heading: 'postal', source: 'postal-code', repeats: 1, isHashed: false },
    { heading: 'country', source: 'country', repeats: 1, isHashed: false },
  ],
  needsCountry: true,
  sizeFloor: 500,
}

export const DESTINATIONS: readonly Destination[] = [BRASSBELL]

export const findDestination = (id: string): Destination | undefined => DESTINATIONS.find((one) => one.id === id)

/** The heading line: a column that may be repeated stands there as often as it may be filled. */
export const headingsOf = (destination: Destination): readonly string[] =>
  destination.columns.flatMap(({ heading, repeats }) => Array<string>(repeats).fill(heading))

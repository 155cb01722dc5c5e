import { remember } from '../remember'
import { readCountry } from '../table'

/** `readCountry` for every row: the same spellings stand in row after row. */
export const countryOf = remember(readCountry)

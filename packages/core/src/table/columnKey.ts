import { fold } from './fold'

const LONGEST = 60

/**
 * A column of a file as it is named where it is filtered by: `Number of seats` is `number-of-seats`. Headings that fold
 * to the same are one.
 */
export const columnKey = (heading: string): string =>
  fold(heading)
    .replace(/[^\p{L}\p{N}]+/gu, '-')
    .replace(/^-+|-+$/g, '')
    .slice(0, LONGEST)

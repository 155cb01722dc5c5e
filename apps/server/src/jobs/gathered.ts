import type { JobRow } from './store'

/** Left behind by the first step of a job that writes down, once, about whom it is to ask. */
export const GATHERED = { isGathered: true } as const

/** True where that is done: nobody is added to it later, whatever becomes of its list. */
export const isGathered = ({ cursor }: Pick<JobRow, 'cursor'>): boolean => cursor.isGathered === GATHERED.isGathered

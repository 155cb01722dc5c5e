import { Problem } from '../http/problem'

/** The refusal of a file over the limit (in bytes), said before and while it comes in. */
export const tooLarge = (limit: number): Problem =>
  new Problem(
    413,
    'file-too-large',
    `The file is larger than ${Math.floor(limit / 1_000_000).toLocaleString('en')} MB, the most this installation takes. Nothing was stored.`,
  )

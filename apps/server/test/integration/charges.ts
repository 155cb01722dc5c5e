import type { TestServer } from './harness'

/** What was charged, in the order in which it was booked. */
export const chargesOf = ({ sql }: TestServer) =>
  sql<{ provider: string; subject: string; amount: string; attempt_id: string | null }>(
    'select provider, subject, amount, attempt_id from charges order by id',
  )

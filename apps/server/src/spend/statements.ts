import type { ServiceStatement } from '@upper-field/contract'
import { openConnection } from '../connections/client'
import { connectedServices } from '../connections/connectors'
import type { Db } from '../db/database'
import { num, readRows, text } from '../db/readRows'
import { JobProblem } from '../jobs/jobProblem'
import type { Services } from '../services'

/** What services say they have charged this month (UTC), beside what stands in our ledger, day by day. */
export async function readStatements(services: Services): Promise<ServiceStatement[]> {
  const month = new Date(services.now()).toISOString().slice(0, 7)
  const ours = await ledgerOf(services.db, month)
  const told = (await connectedServices(services.db)).filter(({ statement }) => Boolean(statement))
  return Promise.all(
    told.map(async ({ id, name }) => {
      const mine = ours.filter(({ provider }) => provider === id)
      try {
        const theirs = (await (await openConnection(services, id)).statement(month)) ?? []
        const days = [...new Set([...mine, ...theirs].map(({ day }) => day))].sort()
        return {
          provider: id,
          name,
          problem: null,
          days: days.map((day) => ({
            day,
            ours: sumOf(mine, day),
            theirs: sumOf(theirs, day),
          })),
        }
      } catch (error) {
        if (!(error instanceof JobProblem)) throw error
        return { provider: id, name, problem: error.code, days: [] }
      }
    }),
  )
}

interface DayLine {
  readonly day: string
  readonly charges: number
  readonly amount: number
}

const sumOf = (lines: readonly DayLine[], day: string) => {
  const mine = lines.filter((line) => line.day === day)
  return {
    charges: mine.reduce((sum, { charges }) => sum + charges, 0),
    amount: mine.reduce((sum, { amount }) => sum + amount, 0),
  }
}

async function ledgerOf(db: Db, month: string): Promise<(DayLine & { readonly provider: string })[]> {
  return readRows(db, { provider: text, day: text, charges: num, amount: num })`
    select provider, to_char(at at time zone 'UTC', 'YYYY-MM-DD') as day, count(*) as charges, sum(amount) as amount
    from charges where to_char(at at time zone 'UTC', 'YYYY-MM') = ${month} group by 1, 2`
}

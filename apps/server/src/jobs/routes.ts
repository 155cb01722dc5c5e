import type { Hono } from 'hono'
import { streamSSE } from 'hono/streaming'
import { transaction } from '../db/database'
import { serve } from '../http/serve'
import { findOpenList } from '../lists/routes'
import type { CallServices } from '../services'
import type { ServerEvents } from './events'
import { asJob, findJob, latestJobs, pauseJob, resumeJob, stopJob } from './store'

const HEARTBEAT = 20_000

export function jobRoutes(app: Hono, services: CallServices, events: ServerEvents): void {
  serve(app, services, 'readJobs', async ({ params }) => (await latestJobs(services.db, params.listId)).map(asJob))

  serve(app, services, 'stopJob', async ({ params }) =>
    asJob(await transaction(services.pool, (tx) => stopJob(tx, params.jobId))),
  )

  serve(app, services, 'pauseJob', async ({ params }) =>
    asJob(await transaction(services.pool, (tx) => pauseJob(tx, params.jobId))),
  )

  serve(app, services, 'resumeJob', async ({ params }) =>
    asJob(
      await transaction(services.pool, async (tx) => {
        await findOpenList(tx, (await findJob(tx, params.jobId)).listId)
        return resumeJob(tx, params.jobId)
      }),
    ),
  )

  serve(app, services, 'watch', async ({ c, sessionId }) =>
    streamSSE(c, async (stream) => {
      const waiting = new Set<string>()
      let wake = () => {}
      let isOver = false
      const end = () => {
        isOver = true
        wake()
      }
      const stopListening = [
        events.onJob((jobId) => {
          waiting.add(jobId)
          wake()
        }),
        events.onSessionEnd((ended) => {
          if (ended === sessionId) end()
        }),
      ]
      stream.onAbort(end)
      await stream.writeSSE({ event: 'ready', data: '{}' })
      while (!isOver) {
        if (waiting.size === 0) await sleepUntil(HEARTBEAT, (resume) => (wake = resume))
        const ids = [...waiting]
        waiting.clear()
        for (const id of ids) {
          const job = await findJob(services.db, id).catch(() => null)
          if (job && !isOver) await stream.writeSSE({ event: 'job', data: JSON.stringify(asJob(job)) })
        }
        if (ids.length === 0 && !isOver) {
          // A session may also run out by itself.
          if (!(await services.people.whoIs(c.req.raw.headers))) break
          await stream.writeSSE({ event: 'beat', data: '{}' })
        }
        // One look at a time: a fast job must not flood the browser.
        await stream.sleep(150)
      }
      for (const stop of stopListening) stop()
    }),
  )
}

function sleepUntil(milliseconds: number, give: (resume: () => void) => void): Promise<void> {
  return new Promise((resolve) => {
    const timer = setTimeout(resolve, milliseconds)
    give(() => {
      clearTimeout(timer)
      resolve()
    })
  })
}

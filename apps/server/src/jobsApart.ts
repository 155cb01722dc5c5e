import { type ChildProcess, fork } from 'node:child_process'
import { builtProgram } from './builtProgram'

/** Work goes in small steps, so a small heap is enough: it keeps memory level however large the file. */
const HEAP = '--max-old-space-size=640'
/** Each block of so many bytes is given back as it is let go (a setting of glibc): in one heap they leave gaps. */
const BLOCKS = { MALLOC_MMAP_THRESHOLD_: String(256 * 1024) }

/** How long is waited before work is taken up again that ended with an error, in milliseconds. */
const PAUSE = 1000

/**
 * Works on jobs in a process of its own: the one that answers browsers is never busy with them, and lives on where they run
 * out of memory. It ends by itself to give back what large lists have left in memory, and another takes its place.
 * @param onFailure told where it cannot even begin
 * @returns how to end it, which lets it bring steps under way to their end
 */
export function startJobsApart(onFailure: () => void): { stop(): Promise<void> } {
  let isStopping = false
  let child: ChildProcess | null = null
  const start = () => {
    if (isStopping) return
    let isReady = false
    const mine = fork(builtProgram('jobsProcess.js'), [], {
      execArgv: [...process.execArgv, HEAP],
      env: { ...process.env, ...BLOCKS },
    })
    child = mine
    mine.once('message', () => {
      isReady = true
    })
    mine.once('error', onFailure)
    mine.once('exit', (code) => {
      child = null
      if (isStopping || code === 0) return start()
      console.error(`jobs: ended by themselves (${code ?? 'killed'})`)
      // Whoever was killed could begin: it may have been at work before it could say so.
      if (isReady || code === null) setTimeout(start, PAUSE)
      else onFailure()
    })
  }
  start()
  return {
    stop: async () => {
      isStopping = true
      const last = child
      if (last === null) return
      const gone = new Promise((resolve) => last.once('exit', resolve))
      last.send('stop', () => {})
      await gone
    },
  }
}

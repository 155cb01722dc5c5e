import { type ChildProcess, fork, type Serializable } from 'node:child_process'
import type { FileSettings, SheetFindings } from '@upper-field/files'
import { builtProgram } from '../builtProgram'
import { JobProblem } from '../jobs/jobProblem'
import type { Limits } from '../limits'
import type { UnpackAnswer, UnpackQuestion } from '../unpackProcess'

const PROGRAM = builtProgram('unpackProcess.js')

export interface Unpacking {
  readonly bytes: Uint8Array
  readonly sheet: string
  readonly settings: FileSettings
  /** Told at the end: what was met while cells were read. */
  readonly findings: SheetFindings
}

/**
 * Unpacks a workbook that can only be read whole in a process of its own with a memory limit. Where that runs out of
 * memory, or of time between two parts, this one job fails with a sentence, and nothing else does.
 */
export async function* unpackApart(
  { bytes, sheet, settings, findings }: Unpacking,
  limits: Limits,
): AsyncGenerator<Uint8Array> {
  const opener = fork(PROGRAM, [], {
    execArgv: [`--max-old-space-size=${limits.unpackMegabytes}`],
    serialization: 'advanced',
    stdio: ['ignore', 'ignore', 'ignore', 'ipc'],
    // It reads a stranger's file: nothing that opens a door is given to it.
    env: {},
  })
  opener.on('error', () => opener.kill('SIGKILL'))
  try {
    for (let ask: Serializable = { bytes, sheet, settings } satisfies UnpackQuestion as Serializable; ; ask = 'more') {
      const answer = await answerOf(opener, ask, limits.unpackSeconds)
      if (answer.kind === 'refused') throw new JobProblem(answer.problem)
      if (answer.kind === 'done') {
        Object.assign(findings, answer.findings)
        return
      }
      yield answer.bytes
    }
  } finally {
    opener.kill('SIGKILL')
  }
}

/** The next answer of the process. Throws a job problem where it ends, or is silent for too long. */
function answerOf(opener: ChildProcess, ask: Serializable, seconds: number): Promise<UnpackAnswer> {
  return new Promise((resolve, reject) => {
    const tooLarge = () => reject(new JobProblem('too-large-for-format'))
    const timer = setTimeout(tooLarge, seconds * 1000)
    const settle = (then: () => void) => () => {
      clearTimeout(timer)
      for (const event of ['message', 'exit'] as const) opener.removeAllListeners(event)
      then()
    }
    opener.once('message', (answer: UnpackAnswer) => settle(() => resolve(answer))())
    opener.once('exit', settle(tooLarge))
    // Who has ended already cannot be asked.
    opener.send(ask, (error) => error && settle(tooLarge)())
  })
}

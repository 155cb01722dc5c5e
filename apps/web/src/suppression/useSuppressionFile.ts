import type { SuppressionRowsAdded } from '@upper-field/contract'
import type { ColumnUse } from '@upper-field/core/pair'
import { useEffect, useRef, useState } from 'react'
import {
  problemText,
  useAddSuppressionRowsMutation,
  useAnnounceSuppressionBatchMutation,
  useTakeSuppressionBackMutation,
} from '../api'
import type { CallProblem } from '../callServer'
import { startWorker } from '../kit/startWorker'
import type { EntryFacts } from './EntryFactsFields'
import type { SuppressionFilePage } from './nextPage'
import type { FileAnswer, FileQuestion, SuppressionFileHead } from './suppressionWorker'

/** How far a file has been added, and what became of its rows. */
export interface FileProgress {
  readonly state: 'adding' | 'done' | 'stopped' | 'failed'
  readonly rows: number
  readonly added: number
  readonly known: number
  readonly marked: number
  /** Contacts that a job marks: of lists that are being worked on, or that hold very many of them. */
  readonly waiting: number
  /** Whom some hashes mean is looked for by jobs. */
  readonly areLookedFor: boolean
  /** Rows that hold no key, or could not be read. */
  readonly unread: readonly number[]
  readonly problem: string | null
}

const BEGUN: FileProgress = {
  state: 'adding',
  rows: 0,
  added: 0,
  known: 0,
  marked: 0,
  waiting: 0,
  areLookedFor: false,
  unread: [],
  problem: null,
}

type Refusal = Extract<FileAnswer, { kind: 'refused' }>['problem']

/** A suppression file: opened and read in a web worker, added page by page. What has been added is kept when it is stopped. */
export function useSuppressionFile(suppressionListId: string, file: File) {
  const worker = useRef<Worker | null>(null)
  const isStopping = useRef(false)
  const [head, setHead] = useState<SuppressionFileHead | null>(null)
  const [refusal, setRefusal] = useState<Refusal | null>(null)
  const [progress, setProgress] = useState<FileProgress | null>(null)
  const [announce] = useAnnounceSuppressionBatchMutation()
  const [addRows] = useAddSuppressionRowsMutation()
  const [takeBack] = useTakeSuppressionBackMutation()
  useEffect(() => {
    const made = startWorker('suppression')
    worker.current = made
    void ask(made, { kind: 'open', file }).then((answer) => {
      if (answer.kind === 'opened') setHead(answer.head)
      else if (answer.kind === 'refused') setRefusal(answer.problem)
    })
    return () => {
      isStopping.current = true
      made.terminate()
    }
  }, [file])

  const add = async (uses: readonly ColumnUse[], facts: EntryFacts): Promise<void> => {
    const reader = worker.current
    if (!reader || !head) return
    isStopping.current = false
    setProgress(BEGUN)
    const batch = await announce({
      params: { suppressionListId },
      body: { name: file.name, sha256: head.sha256, ...facts },
    })
    if (!batch.data) return setProgress(failed(BEGUN, batch.error))
    const params = { suppressionBatchId: batch.data.id }
    let now = BEGUN
    for (let question: FileQuestion = { kind: 'start', uses }; ; question = { kind: 'next' }) {
      const page = await ask(reader, question)
      if (page.kind !== 'rows') return
      const sent = page.rows.length > 0 ? await addRows({ params, body: { rows: [...page.rows] } }) : null
      if (sent?.error) return setProgress(failed(now, sent.error))
      now = withPage(now, page, sent?.data ?? null)
      if (page.isLast || isStopping.current) break
      setProgress(now)
    }
    const isEmpty = now.added + now.known === 0
    // What names nobody is not left on the list as a file.
    if (isEmpty) await takeBack({ params })
    setProgress({ ...now, state: isStopping.current ? 'stopped' : 'done' })
  }

  return {
    head,
    refusal,
    progress,
    add,
    stop: () => {
      isStopping.current = true
    },
  }
}

const ask = (worker: Worker, question: FileQuestion): Promise<FileAnswer> =>
  new Promise((resolve) => {
    worker.addEventListener('message', ({ data }: MessageEvent<FileAnswer>) => resolve(data), { once: true })
    worker.postMessage(question)
  })

const failed = (progress: FileProgress, error: unknown): FileProgress => ({
  ...progress,
  state: 'failed',
  problem: problemText(error as CallProblem),
})

function withPage(
  before: FileProgress,
  { rows, held }: SuppressionFilePage,
  sent: SuppressionRowsAdded | null,
): FileProgress {
  return {
    ...before,
    rows: before.rows + rows.length + held.length,
    added: before.added + (sent?.added ?? 0),
    known: before.known + (sent?.known ?? 0),
    marked: before.marked + (sent?.marked ?? 0),
    waiting: before.waiting + (sent?.waiting ?? 0),
    areLookedFor: before.areLookedFor || sent?.areLookedFor === true,
    unread: [...before.unread, ...held, ...(sent?.unread ?? [])],
  }
}

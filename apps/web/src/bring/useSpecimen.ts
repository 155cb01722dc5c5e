import type { Mapping } from '@upper-field/core/table'
import type { FileOpening, FileWishes } from '@upper-field/files'
import { useEffect, useRef, useState } from 'react'
import { startWorker } from '../kit/startWorker'
import type { HeadAnswer, HeadQuestion, NumberCount, ShownRow } from './headWorker'

export interface SpecimenHead {
  readonly opening: FileOpening
  readonly fingerprint: string
}

/** Opens the head of a file in a web worker; null while it is being read. What the operator settles opens it anew. */
export function useSpecimen(file: File, wishes: FileWishes) {
  const worker = useRef<Worker | null>(null)
  const [head, setHead] = useState<SpecimenHead | null>(null)
  const [rows, setRows] = useState<readonly ShownRow[]>([])
  const [count, setCount] = useState<NumberCount | null>(null)
  const [total, setTotal] = useState<number | null>(null)
  useEffect(() => {
    const made = startWorker('head')
    made.addEventListener('message', ({ data }: MessageEvent<HeadAnswer>) => {
      if (data.kind === 'opened') {
        setHead({ opening: data.opening, fingerprint: data.fingerprint })
        setTotal(null)
      } else if (data.kind === 'counted') setTotal(data.rows)
      else {
        setRows(data.rows)
        setCount(data.count)
      }
    })
    worker.current = made
    return () => made.terminate()
  }, [])
  const wished = JSON.stringify(wishes)
  useEffect(() => {
    ask(worker.current, { kind: 'open', file, wishes: JSON.parse(wished) as FileWishes })
  }, [file, wished])
  const read = useRef((mapping: Mapping, country: string | null) =>
    ask(worker.current, { kind: 'read', mapping, country }),
  )
  return { head, rows, count, total, read: read.current }
}

const ask = (worker: Worker | null, question: HeadQuestion): void => worker?.postMessage(question)

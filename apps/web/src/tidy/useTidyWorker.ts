import { useCallback, useEffect, useRef } from 'react'
import { startWorker } from '../kit/startWorker'
import type { TidyAnswer, TidyQuestion } from './tidyWorker'

type Question = TidyQuestion extends infer Q ? (Q extends TidyQuestion ? Omit<Q, 'id'> : never) : never

/** Asks the worker that tidies; an answer to an older question than the last of its kind is dropped. */
export function useTidyWorker(onAnswer: (answer: TidyAnswer) => void) {
  const worker = useRef<Worker | null>(null)
  const latest = useRef({ preview: 0, read: 0 })
  const told = useRef(onAnswer)
  told.current = onAnswer
  useEffect(() => {
    const made = startWorker('tidy')
    made.addEventListener('message', ({ data }: MessageEvent<TidyAnswer>) => {
      if (data.id === latest.current[data.kind]) told.current(data)
    })
    worker.current = made
    return () => {
      worker.current = null
      made.terminate()
    }
  }, [])
  return useCallback((question: Question) => {
    latest.current[question.kind]++
    worker.current?.postMessage({ ...question, id: latest.current[question.kind] })
  }, [])
}

import { useCallback, useEffect, useRef } from 'react'
import { startWorker } from '../kit/startWorker'
import type { TidyAnswer, TidyQuestion } from './tidyWorker'

type Question = TidyQuestion extends infer Q ? (Q extends TidyQuestion ? Omit<Q, 'id'> : never) : never

/** Asks the worker that tidies, which begins with the first question; an answer to an older question than the last of its kind is dropped. */
export function useTidyWorker(onAnswer: (answer: TidyAnswer) => void) {
  const worker = useRef<Worker | null>(null)
  const latest = useRef({ preview: 0, read: 0 })
  const told = useRef(onAnswer)
  told.current = onAnswer
  useEffect(
    () => () => {
      worker.current?.terminate()
      worker.current = null
    },
    [],
  )
  return useCallback((question: Question) => {
    worker.current ??= begun((answer) => {
      if (answer.id === latest.current[answer.kind]) told.current(answer)
    })
    latest.current[question.kind]++
    worker.current.postMessage({ ...question, id: latest.current[question.kind] })
  }, [])
}

function begun(onAnswer: (answer: TidyAnswer) => void): Worker {
  const worker = startWorker('tidy')
  worker.addEventListener('message', ({ data }: MessageEvent<TidyAnswer>) => onAnswer(data))
  return worker
}

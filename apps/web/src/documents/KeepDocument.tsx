import type { ReactNode } from 'react'
import { problemText } from '../api'
import { AskFirst } from '../kit/AskFirst'
import { Button } from '../kit/Button'
import { Notice } from '../kit/Notice'
import { SaveAsFile } from './SaveAsFile'

interface KeepDocumentProps {
  readonly text: string
  /** Name of the file it is saved as; null for a document that is not kept yet. */
  readonly fileName: string | null
  readonly isWhole: boolean
  readonly isChanged: boolean
  readonly isBusy: boolean
  /** It was kept just now. */
  readonly wasKept: boolean
  readonly problem: unknown
  /** Why it cannot be kept as it is, though it is whole. */
  readonly obstacle: string | null
  /** What keeping a new one is called, and forgetting one. */
  readonly addText: string
  readonly forgetText: string
  /** What is lost with it. */
  readonly forgetSays: ReactNode
  readonly onKeep: () => void
  /** Null where there is nothing to forget. */
  readonly onForget: (() => void) | null
}

/** Keeps what was written, saves it as a file, or forgets it. */
export function KeepDocument(props: KeepDocumentProps) {
  const { text, fileName, isWhole, isChanged, isBusy, wasKept, problem, obstacle, onKeep, onForget } = props
  return (
    <>
      {problem ? <Notice tone="bad">{problemText(problem)}</Notice> : null}
      {obstacle ? <Notice tone="look">{obstacle}</Notice> : null}
      {wasKept && !isChanged ? <Notice tone="told">Kept.</Notice> : null}
      <div className="flex gap-2">
        <Button look="main" disabled={!isWhole || !isChanged || isBusy || obstacle !== null} onClick={onKeep}>
          {fileName === null ? props.addText : 'Keep the change'}
        </Button>
        {fileName === null ? null : <SaveAsFile text={text} name={fileName} />}
        {onForget ? (
          <AskFirst title={`${props.forgetText}?`} says={props.forgetSays} does={props.forgetText} onDo={onForget}>
            {(ask) => (
              <Button look="danger" disabled={isBusy} onClick={ask}>
                {props.forgetText} …
              </Button>
            )}
          </AskFirst>
        ) : null}
      </div>
    </>
  )
}

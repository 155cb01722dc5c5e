import type { SuppressionList } from '@upper-field/contract'
import type { ColumnUse } from '@upper-field/core/pair'
import { FILE_PROBLEM_TEXT } from '@upper-field/core/table'
import { useRef, useState } from 'react'
import { Button } from '../kit/Button'
import { Loading, Notice } from '../kit/Notice'
import { count, plural } from '../words/format'
import { addedText } from './addedText'
import { EntryFactsFields, NO_FACTS } from './EntryFactsFields'
import { FileColumns } from './FileColumns'
import { type FileProgress, useSuppressionFile } from './useSuppressionFile'

/** People are added from a file of any kind, its columns recognised as those of a list are. */
export function AddFile({ list }: { list: SuppressionList }) {
  const input = useRef<HTMLInputElement>(null)
  const [file, setFile] = useState<{ readonly chosen: File; readonly at: number } | null>(null)
  return (
    <section aria-label="Add people from a file">
      <div className="flex flex-wrap items-center gap-3">
        <Button onClick={() => input.current?.click()}>{file ? 'Choose another file' : 'Choose a file'}</Button>
        <span className="text-soft">
          {file
            ? file.chosen.name
            : 'CSV, workbooks (.xlsx, .xls, .ods), vCards, JSON: nothing is sent before you say so.'}
        </span>
      </div>
      <input
        ref={input}
        type="file"
        aria-label="Suppression file"
        className="sr-only"
        tabIndex={-1}
        onChange={({ target }) => {
          const [chosen] = target.files ?? []
          if (chosen) setFile({ chosen, at: (file?.at ?? 0) + 1 })
          target.value = ''
        }}
      />
      {file ? <OneFile key={file.at} list={list} file={file.chosen} /> : null}
    </section>
  )
}

function OneFile({ list, file }: { list: SuppressionList; file: File }) {
  const { head, refusal, progress, add, stop } = useSuppressionFile(list.id, file)
  const [changed, setChanged] = useState<readonly ColumnUse[] | null>(null)
  const [facts, setFacts] = useState(NO_FACTS)
  if (refusal) return <Notice tone="bad">{refusalText(refusal)}</Notice>
  if (!head) return <Loading what="the file" />
  const uses = changed ?? head.uses
  const isUsed = uses.some((use) => use !== null)
  const isAdding = progress?.state === 'adding'
  return (
    <form
      aria-label="What the file holds"
      className="pt-3"
      onSubmit={(event) => {
        event.preventDefault()
        if (isUsed && !isAdding) void add(uses, facts)
      }}
    >
      <FileColumns head={head} uses={uses} onChange={setChanged} />
      {isUsed ? null : (
        <Notice tone="look">
          No column is used: nobody would be suppressed. Say which columns hold numbers, addresses, domains or hashes.
        </Notice>
      )}
      <div className="grid grid-cols-[minmax(0,1fr)_minmax(0,1fr)] items-start gap-x-5 gap-y-2 pt-3">
        <EntryFactsFields facts={facts} onChange={setFacts} />
      </div>
      <div className="flex flex-wrap items-center gap-2 pt-3">
        <Button look="main" type="submit" disabled={!isUsed || isAdding}>
          Add everybody in this file
        </Button>
        {isAdding ? <Button onClick={stop}>Stop</Button> : null}
      </div>
      {progress ? <Progress progress={progress} /> : null}
    </form>
  )
}

const refusalText = (problem: keyof typeof FILE_PROBLEM_TEXT | 'too-large-to-suppress'): string =>
  problem === 'too-large-to-suppress'
    ? 'This file is larger than 256 MB. Cut it in parts and add them one after another. Nothing was added.'
    : `${FILE_PROBLEM_TEXT[problem]} Nothing was added.`

/** So many rows are named; the rest is counted. */
const MOST_NAMED = 12

function Progress({ progress }: { progress: FileProgress }) {
  const { state, rows, added, known, marked, waiting, areLookedFor, unread, problem } = progress
  if (state === 'adding')
    return (
      <p role="status" className="pt-2 text-soft">
        {plural(rows, 'row')} read, {plural(added, 'entry', 'entries')} added, {plural(marked, 'contact')} marked
        {waiting > 0 ? `, ${count(waiting)} being marked` : ''}
        {areLookedFor ? ', others being looked for' : ''}
      </p>
    )
  if (state === 'failed')
    return (
      <Notice tone="bad">
        {problem}{' '}
        {rows > 0 ? `The first ${plural(rows, 'row')} of the file were added and are kept.` : 'Nothing was added.'}
      </Notice>
    )
  if (state === 'done' && added + known === 0)
    return (
      <Notice tone="bad">
        {rows === 0
          ? 'The file has no rows.'
          : `None of the ${plural(rows, 'row')} holds a number, an address, a domain or a hash in the columns that are used.`}{' '}
        Nobody is suppressed by this file, and nothing of it is kept.
      </Notice>
    )
  return (
    <Notice tone={unread.length > 0 || state === 'stopped' ? 'look' : 'told'}>
      {state === 'stopped' ? `Stopped after ${plural(rows, 'row')}; what was added is kept. ` : ''}
      {addedText(progress)}
      {unread.length > 0
        ? ` ${plural(unread.length, 'row')} without a key: ${unread.slice(0, MOST_NAMED).map(count).join(', ')}${unread.length > MOST_NAMED ? ' …' : ''}.`
        : ''}
    </Notice>
  )
}

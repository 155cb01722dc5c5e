import type { TidyState } from '@upper-field/contract'
import { useEffect, useState } from 'react'
import { useApplyRoutineMutation, useReadSampleQuery, useSaveRoutineMutation } from '../api'
import { Button } from '../kit/Button'
import { Dialog } from '../kit/Dialog'
import { TextField } from '../kit/Field'
import { Refused } from '../shell/Answer'
import { count, plural } from '../words/format'
import { columnTitle } from '../words/tidying'
import type { Preview } from './tidyWorker'
import type { RoutineDraft } from './useRoutineDraft'
import { useTidyWorker } from './useTidyWorker'

/** What the changed routine would do, tried on a sample, and the way to apply or to drop it. */
export function DraftBar({
  listId,
  state,
  draft,
  contacts,
}: {
  listId: string
  state: TidyState
  draft: RoutineDraft
  contacts: number
}) {
  const { data: sample } = useReadSampleQuery({ params: { listId } }, { skip: !draft.isChanged })
  const [preview, setPreview] = useState<Preview | null>(null)
  const ask = useTidyWorker((answer) => {
    if (answer.kind === 'preview') setPreview(answer.preview)
  })
  const [apply, applying] = useApplyRoutineMutation()
  const [isNaming, setNaming] = useState(false)
  const { routine, isChanged } = draft
  useEffect(() => {
    if (isChanged && sample) ask({ kind: 'preview', sample, before: state.routine, after: routine })
  }, [isChanged, sample, routine, state.routine, ask])
  if (!isChanged) return null
  const send = async (name: string | null) => {
    const sent = await apply({
      params: { listId },
      body: { routine, name },
    })
    if (!sent.error) draft.discard()
  }
  return (
    <section aria-label="Changed routine" className="mb-3 rounded-small border border-edge bg-surface px-3 py-2">
      <div className="flex flex-wrap items-center gap-2">
        <p className="min-w-0 flex-1" role="status">
          <span className="font-semibold">Not applied yet.</span>{' '}
          <span className="text-soft">{preview ? told(preview) : 'Trying it on a sample …'}</span>
        </p>
        <Button onClick={draft.discard}>Drop the change</Button>
        <Button onClick={() => setNaming(true)}>Save by name …</Button>
        <Button look="main" disabled={applying.isLoading} onClick={() => void send(state.name)}>
          Tidy {count(contacts)} contacts
        </Button>
      </div>
      <Refused by={[applying]} />
      {preview?.problems.map(({ step, detail, code }) => (
        <p key={step + detail} className="pt-1 text-straw-ink">
          {code === 'column-gone' ? `A column this step names is gone: ${detail}. The step leaves it alone.` : detail}
        </p>
      ))}
      {preview && preview.values.length > 0 ? <PreviewTable preview={preview} /> : null}
      {isNaming ? (
        <NameDialog draft={draft} onClose={() => setNaming(false)} onSaved={(name) => void send(name)} />
      ) : null}
    </section>
  )
}

const told = ({ differing, rows }: Preview): string =>
  differing === 0
    ? `None of ${plural(rows, 'row')} of the sample would come out otherwise.`
    : `${count(differing)} of ${plural(rows, 'row')} of the sample would come out otherwise.`

function PreviewTable({ preview }: { preview: Preview }) {
  return (
    <table className="mt-1 w-full table-fixed text-[13px]">
      <caption className="sr-only">What would come out otherwise</caption>
      <thead>
        <tr className="text-left text-soft">
          <th className="w-[24%] py-0.5 font-semibold">Column</th>
          <th className="py-0.5 font-semibold">Now</th>
          <th className="py-0.5 font-semibold">With the change</th>
        </tr>
      </thead>
      <tbody>
        {preview.values.map(({ contactId, column, was, is }) => (
          <tr key={`${contactId}${column}`} className="border-t border-line">
            <td className="truncate py-0.5 pr-2">{columnTitle(column)}</td>
            <td className="truncate py-0.5 pr-2 text-soft">{was || 'blank'}</td>
            <td className="truncate py-0.5 font-semibold">{is || 'blank'}</td>
          </tr>
        ))}
      </tbody>
    </table>
  )
}

function NameDialog({
  draft,
  onClose,
  onSaved,
}: {
  draft: RoutineDraft
  onClose: () => void
  onSaved: (name: string) => void
}) {
  const [name, setName] = useState('')
  const [save, saving] = useSaveRoutineMutation()
  const { routine } = draft
  const submit = async () => {
    const saved = await save({ body: { name, routine } })
    if (saved.error) return
    onSaved(name)
    onClose()
  }
  return (
    <Dialog title="Save this routine by name" isOpen onClose={onClose}>
      <form
        className="flex flex-col gap-3"
        onSubmit={(event) => {
          event.preventDefault()
          void submit()
        }}
      >
        <TextField
          label="Name"
          value={name}
          maxLength={120}
          required
          onChange={(event) => setName(event.target.value)}
          hint="Other lists can use it. A name that is taken is replaced."
        />
        <Refused by={[saving]} />
        <Button look="main" type="submit" disabled={name.trim() === '' || saving.isLoading}>
          Save, and tidy this list with it
        </Button>
      </form>
    </Dialog>
  )
}

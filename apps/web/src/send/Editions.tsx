import { addressOf, type Edition, isUnderWay } from '@upper-field/contract'
import { Download } from 'lucide-react'
import { useReadEditionsQuery, useReadJobsQuery } from '../api'
import { useMayChange } from '../people/useRole'
import { Answer } from '../shell/Answer'
import { useListView } from '../shell/useListView'
import { bytes, count, plural, time } from '../words/format'

const FORM: Record<Edition['form'], string> = {
  hashed: 'audience, hashed',
  plain: 'audience, plain',
  people: 'file for people',
}

/** Files made so far, the latest first; each can be downloaded as often as needed. */
export function Editions() {
  const { listId } = useListView()
  const editions = useReadEditionsQuery({ params: { listId } })
  return (
    <Answer
      of={editions}
      what="the files"
      none={<p className="border-y border-line py-3 text-soft">No file was written yet.</p>}
    >
      {(all) => <EditionTable editions={all} />}
    </Answer>
  )
}

function EditionTable({ editions }: { editions: readonly Edition[] }) {
  const { listId } = useListView()
  const { data: jobs = [] } = useReadJobsQuery({ params: { listId } })
  return (
    <div className="max-h-48 shrink-0 overflow-y-auto">
      <table className="w-full">
        <thead className="text-left text-[13px] text-soft">
          <tr className="border-b border-edge">
            <th className="py-1">File</th>
            <th>For</th>
            <th className="pl-3 text-right">People</th>
            <th className="whitespace-nowrap pl-3 text-right">Left out</th>
            <th className="pl-4">Made</th>
            <th>
              <span className="sr-only">Download</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {editions.map((edition) => (
            <EditionLine
              key={edition.id}
              edition={edition}
              share={shareOf(jobs.find(({ id }) => id === edition.jobId))}
            />
          ))}
        </tbody>
      </table>
    </div>
  )
}

function shareOf(job: { done: number; total: number | null; state: string } | undefined): number {
  if (!job || !isUnderWay(job as Parameters<typeof isUnderWay>[0])) return 0
  return job.total ? job.done / job.total : 0
}

function EditionLine({ edition, share }: { edition: Edition; share: number }) {
  const mayChange = useMayChange()
  return (
    <tr className="border-b border-line">
      <td className="max-w-56 truncate pr-2 py-1.5" title={edition.fileName}>
        {edition.fileName}
      </td>
      <td className="whitespace-nowrap text-[13px]">{FORM[edition.form]}</td>
      <td className="num text-right">{count(edition.people)}</td>
      <td className="num text-right">{count(edition.leftOut)}</td>
      <td className="whitespace-nowrap pl-4 text-[13px] text-soft">{time(edition.createdAt)}</td>
      <td className="pl-3 text-right">
        {edition.state === 'preparing' ? (
          <progress aria-label={`Writing ${edition.fileName}`} max={1} value={share} className="bar h-2 w-24" />
        ) : null}
        {edition.state === 'failed' || edition.state === 'stopped' ? (
          <span className="text-beet">{edition.state}</span>
        ) : null}
        {edition.state === 'withdrawn' ? (
          <span className="text-[13px] text-soft">withdrawn: it held a person who is forgotten</span>
        ) : null}
        {edition.suppressedSince > 0 ? (
          <span className="text-[13px] text-straw-ink">
            kept back: {plural(edition.suppressedSince, 'person', 'people')} in it said no since. Make it again.
          </span>
        ) : null}
        {edition.state === 'ready' && edition.suppressedSince === 0 && mayChange ? (
          <span className="flex items-center justify-end gap-3">
            <a
              href={addressOf('describeEdition', { params: { editionId: edition.id } })}
              download="datapackage.json"
              title="What stands in it, where it comes from, and its digest (datapackage.json)"
              className="whitespace-nowrap text-[13px] text-slate underline"
            >
              its description
            </a>
            <a
              href={addressOf('downloadEdition', { params: { editionId: edition.id } })}
              download={edition.fileName}
              className="inline-flex items-center gap-1 whitespace-nowrap font-semibold text-slate underline"
            >
              <Download size={14} aria-hidden="true" /> Download {bytes(edition.bytes)}
            </a>
          </span>
        ) : null}
      </td>
    </tr>
  )
}

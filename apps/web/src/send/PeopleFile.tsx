import type { FileLayout } from '@upper-field/contract'
import { FILE_COLUMNS, USUAL_LAYOUT } from '@upper-field/core/send'
import { useState } from 'react'
import { problemText, useMakeEditionMutation, useReadBatchesQuery, useReadFileLayoutsQuery } from '../api'
import { Button, TextButton } from '../kit/Button'
import { SelectField } from '../kit/Field'
import { Notice } from '../kit/Notice'
import { useListView } from '../shell/useListView'
import { LayoutDialog } from './LayoutDialog'

export const usualLayout = (): FileLayout => ({
  ...USUAL_LAYOUT,
  columns: USUAL_LAYOUT.columns.map((one) => ({ ...one })),
})

const BESIDE = [
  'verdict',
  'number-1',
  'line-type',
  'line-status',
  'found-number',
  'found-email',
  'lane',
  'not-for',
  'same-as-row',
] as const

/** What stands beside the columns of a file as it came, where nobody says otherwise. */
export const besideLayout = (): FileLayout => ({
  ...USUAL_LAYOUT,
  hasExtras: false,
  columns: BESIDE.map((column) => ({ column, heading: FILE_COLUMNS[column] })),
})

/** Writes a file for people, in a layout that is chosen, changed, or kept by a name. */
export function PeopleFile({ isMain, isOff }: { isMain: boolean; isOff: boolean }) {
  const { listId, text } = useListView()
  const { data: kept = [] } = useReadFileLayoutsQuery({})
  const [make, making] = useMakeEditionMutation()
  const [chosen, setChosen] = useState('')
  const [isOpen, setIsOpen] = useState(false)
  const { data: batches = [] } = useReadBatchesQuery({ params: { listId } })
  const ready = batches.filter(({ state }) => state === 'ready')
  const [batchId, setBatchId] = useState('')
  const isAsItCame = batchId !== ''
  // Cards have no place for the columns of a file.
  const layouts = isAsItCame ? kept.filter((one) => one.layout.kind !== 'vcard') : kept
  const own = layouts.find(({ name }) => name === chosen)
  const layout = own?.layout ?? (isAsItCame ? besideLayout() : usualLayout())
  const isUsual = own === undefined && !isAsItCame
  const write = (by: FileLayout | null) =>
    make({
      params: { listId },
      body: {
        destination: 'people',
        form: 'people',
        filter: isAsItCame ? '' : text,
        layout: by,
        ...(isAsItCame ? { batchId } : {}),
      },
    })
  return (
    <section aria-label="A file for people" className="flex flex-col gap-2">
      {ready.length > 0 ? (
        <SelectField
          label="Rows of the file"
          value={batchId}
          onChange={(event) => setBatchId(event.target.value)}
          {...(isAsItCame
            ? { hint: 'Every row with its own columns, in its own order; what is known of it stands beside them.' }
            : {})}
        >
          <option value="">everybody chosen</option>
          {ready.map(({ id, name }) => (
            <option key={id} value={id}>
              {name}, as it came
            </option>
          ))}
        </SelectField>
      ) : null}
      {layouts.length > 0 ? (
        <SelectField
          label="Layout of a file for people"
          value={own?.name ?? ''}
          onChange={(event) => setChosen(event.target.value)}
        >
          <option value="">the usual one</option>
          {layouts.map(({ name }) => (
            <option key={name} value={name}>
              {name}
            </option>
          ))}
        </SelectField>
      ) : null}
      {making.error && !isOpen ? <Notice tone="bad">{problemText(making.error)}</Notice> : null}
      <Button
        look={isMain ? 'main' : 'plain'}
        disabled={(isOff && !isAsItCame) || making.isLoading}
        onClick={() => void write(isUsual ? null : layout)}
      >
        {isMain ? 'Write a file for people' : 'Write a file for people instead'}
      </Button>
      <p>
        <TextButton className="text-[13px]" onClick={() => setIsOpen(true)}>
          Columns and form of the file
        </TextButton>
      </p>
      {isOpen ? (
        <LayoutDialog
          begun={layout}
          name={own?.name ?? ''}
          names={kept.map(({ name }) => name)}
          isOff={(isOff && !isAsItCame) || making.isLoading}
          without={isAsItCame ? ['vcard'] : []}
          problem={making.error}
          onKept={setChosen}
          onWrite={async (by) => {
            const { error } = await write(by)
            if (!error) setIsOpen(false)
          }}
          onClose={() => setIsOpen(false)}
        />
      ) : null}
    </section>
  )
}

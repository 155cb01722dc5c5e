import type { FileLayout } from '@upper-field/contract'
import { USUAL_LAYOUT } from '@upper-field/core/send'
import { useState } from 'react'
import { problemText, useMakeEditionMutation, useReadFileLayoutsQuery } from '../api'
import { Button, TextButton } from '../kit/Button'
import { SelectField } from '../kit/Field'
import { Notice } from '../kit/Notice'
import { useListView } from '../shell/useListView'
import { LayoutDialog } from './LayoutDialog'

export const usualLayout = (): FileLayout => ({
  ...USUAL_LAYOUT,
  columns: USUAL_LAYOUT.columns.map((one) => ({ ...one })),
})

/** Writes a file for people, in a layout that is chosen, changed, or kept by a name. */
export function PeopleFile({ isMain, isOff }: { isMain: boolean; isOff: boolean }) {
  const { listId, text } = useListView()
  const { data: kept = [] } = useReadFileLayoutsQuery({})
  const [make, making] = useMakeEditionMutation()
  const [chosen, setChosen] = useState('')
  const [isOpen, setIsOpen] = useState(false)
  const layout = kept.find(({ name }) => name === chosen)?.layout ?? usualLayout()
  const write = (by: FileLayout | null) =>
    make({ params: { listId }, body: { destination: 'people', form: 'people', filter: text, layout: by } })
  return (
    <section aria-label="A file for people" className="flex flex-col gap-2">
      {kept.length > 0 ? (
        <SelectField
          label="Layout of a file for people"
          value={chosen}
          onChange={(event) => setChosen(event.target.value)}
        >
          <option value="">the usual one</option>
          {kept.map(({ name }) => (
            <option key={name} value={name}>
              {name}
            </option>
          ))}
        </SelectField>
      ) : null}
      {making.error && !isOpen ? <Notice tone="bad">{problemText(making.error)}</Notice> : null}
      <Button
        look={isMain ? 'main' : 'plain'}
        disabled={isOff || making.isLoading}
        onClick={() => void write(chosen === '' ? null : layout)}
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
          name={chosen}
          isOff={isOff || making.isLoading}
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

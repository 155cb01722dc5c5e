import type { SuppressionList } from '@upper-field/contract'
import { useState } from 'react'
import { Tabs } from '../kit/Tabs'
import { AddEntries } from './AddEntries'
import { AddFile } from './AddFile'

/** People are added by hand or with a file. */
export function AddPeople({ list }: { list: SuppressionList }) {
  const [way, setWay] = useState<'typed' | 'file'>('typed')
  return (
    <div className="mb-5 border-b border-line pb-4">
      <div className="-mx-5">
        <Tabs
          label="How people are added"
          open={way}
          tabs={[
            ['typed', 'Type or paste'],
            ['file', 'Bring in a file'],
          ]}
          onOpen={setWay}
        />
      </div>
      <div className="pt-3">{way === 'typed' ? <AddEntries list={list} /> : <AddFile list={list} />}</div>
    </div>
  )
}

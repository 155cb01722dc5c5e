import type { DestinationDocument } from '@upper-field/contract'
import { headingsOf } from '@upper-field/core/send'
import { Fragment, useState } from 'react'
import { useNavigate, useParams } from 'react-router'
import {
  useKeepDestinationMutation,
  useReadDestinationsQuery,
  useReadShippedDestinationsQuery,
  useRemoveDestinationMutation,
} from '../api'
import { DocumentPage } from '../documents/DocumentPage'
import { DocumentText } from '../documents/DocumentText'
import { copyOf, type Draft, isOtherwise, whyTaken } from '../documents/draft'
import { KeepDocument } from '../documents/KeepDocument'
import { StartFrom } from '../documents/StartFrom'
import { Notice } from '../kit/Notice'
import { useIsOwner } from '../people/useRole'
import { lastRead, Unanswered } from '../shell/Answer'
import { Accounts } from './Accounts'
import { blankDestination, destinationText, readDestination } from './destinationDraft'

const ALL = { to: '/destinations', text: 'Destinations' }

/** One destination: how it is declared, and the heading lines that makes. */
export function DestinationView() {
  const { destination = 'new' } = useParams()
  const asked = useReadDestinationsQuery({})
  const data = lastRead(asked)
  if (!data)
    return (
      <DocumentPage all={ALL} title="A destination">
        <Unanswered of={[asked]} what="the destination" />
      </DocumentPage>
    )
  const kept = data.find(({ id }) => id === destination) ?? null
  if (destination !== 'new' && !kept)
    return (
      <DocumentPage all={ALL} title="A destination">
        <Notice tone="bad">There is no such destination.</Notice>
      </DocumentPage>
    )
  return <Editor key={destination} kept={kept} all={data} />
}

function Editor({ kept, all }: { kept: DestinationDocument | null; all: readonly DestinationDocument[] }) {
  const [text, setText] = useState(() => (kept ? destinationText(kept) : blankDestination()))
  const { data: shipped = [] } = useReadShippedDestinationsQuery({})
  const draft = readDestination(text)
  const isOwner = useIsOwner()
  const others = [...all, ...shipped.filter(({ id }) => !all.some((one) => one.id === id))]
  const start = (id: string) => {
    const found = others.find((one) => one.id === id)
    setText(found ? destinationText(copyOf(found, others)) : blankDestination())
  }
  return (
    <DocumentPage all={ALL} title={kept?.name ?? 'A new destination'}>
      <p className="pb-4 text-soft">
        {kept?.about ||
          'A destination is declared by one JSON document: which columns it takes, in which form, and what must be there.'}
      </p>
      <div className="grid grid-cols-[minmax(0,1fr)_380px] items-start gap-6">
        <div className="flex flex-col gap-3">
          {kept ? null : (
            <StartFrom
              what="a destination"
              choices={others.map(({ id, name }) => [id, `a copy of ${name}`])}
              onChoose={start}
              onText={setText}
            />
          )}
          <DocumentText label="Destination" text={text} draft={draft} isReadOnly={!isOwner} onChange={setText} />
          {isOwner ? <Keeping draft={draft} text={text} kept={kept} all={all} /> : null}
        </div>
        <div>
          {kept?.network ? <Accounts destinationId={kept.id} /> : null}
          <Headings draft={draft} />
        </div>
      </div>
    </DocumentPage>
  )
}

/** The heading lines a file gets, and what has to be there. */
function Headings({ draft }: { draft: Draft<DestinationDocument> }) {
  if (draft.status === 'wrong')
    return <p className="text-soft">What a file looks like shows once nothing is to mend.</p>
  return (
    <div className="flex flex-col gap-4">
      {draft.document.audiences.map((shape) => (
        <section key={shape.takes} aria-label={`A file of ${shape.takes}`}>
          <h2 className="pb-1">A file of {shape.takes}</h2>
          <p className="num break-words rounded-small border border-line bg-surface p-2 text-[13px]">
            {headingsOf(shape).map((heading, at) => (
              // biome-ignore lint/suspicious/noArrayIndexKey: a column may stand there several times
              <Fragment key={at}>
                {at > 0 ? ',' : ''}
                <wbr />
                {heading}
              </Fragment>
            ))}
          </p>
          <ul className="pt-2 text-[13.5px]">
            {shape.rules.everyRow.length > 0 ? <li>On every row: {shape.rules.everyRow.join(', ')}</li> : null}
            <li>At least one of: {shape.rules.someOf.join(', ')}</li>
            {shape.rules.together.map((group) => (
              <li key={group.join()}>All of these or none: {group.join(', ')}</li>
            ))}
            <li>
              Hashed:{' '}
              {shape.columns
                .filter(({ isHashed }) => isHashed)
                .map(({ heading }) => heading)
                .join(', ') || 'nothing'}
            </li>
          </ul>
        </section>
      ))}
    </div>
  )
}

interface KeepingProps {
  readonly draft: Draft<DestinationDocument>
  readonly text: string
  readonly kept: DestinationDocument | null
  readonly all: readonly DestinationDocument[]
}

function Keeping({ draft, text, kept, all }: KeepingProps) {
  const navigate = useNavigate()
  const [keep, keeping] = useKeepDestinationMutation()
  const [remove, removing] = useRemoveDestinationMutation()
  const isChanged = kept === null || isOtherwise(kept, draft, text, destinationText)
  const submit = async () => {
    if (draft.status !== 'whole') return
    const { data } = await keep({ params: { destinationId: kept?.id ?? draft.document.id }, body: draft.document })
    if (data && !kept) navigate(`/destinations/${data.id}`)
  }
  const forget = async () => {
    if (!kept) return
    const { error } = await remove({ params: { destinationId: kept.id } })
    if (!error) navigate('/destinations')
  }
  return (
    <KeepDocument
      text={text}
      fileName={kept ? `${kept.id}.json` : null}
      isWhole={draft.status === 'whole'}
      isChanged={isChanged}
      isBusy={keeping.isLoading || removing.isLoading}
      wasKept={keeping.data !== undefined}
      problem={keeping.error ?? removing.error}
      obstacle={kept || keeping.data ? null : whyTaken(draft, all)}
      addText="Add this destination"
      forgetText="Forget it"
      forgetSays="Its document is gone for good, and the key to it. Save it as a file first, where it may be wanted again."
      onKeep={() => void submit()}
      onForget={kept ? () => void forget() : null}
    />
  )
}

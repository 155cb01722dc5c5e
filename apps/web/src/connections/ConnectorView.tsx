import type { Connection, ConnectorDocument } from '@upper-field/contract'
import { useState } from 'react'
import { useNavigate, useParams } from 'react-router'
import {
  useKeepConnectorMutation,
  useReadConnectionsQuery,
  useReadConnectorQuery,
  useRemoveConnectionMutation,
} from '../api'
import { DocumentPage } from '../documents/DocumentPage'
import { DocumentText } from '../documents/DocumentText'
import { isOtherwise, whyTaken } from '../documents/draft'
import { KeepDocument } from '../documents/KeepDocument'
import { useIsOwner } from '../people/useRole'
import { lastRead, Unanswered } from '../shell/Answer'
import { ConnectionDialog } from './ConnectionDialog'
import { blank, type Draft, readDraft, textOf } from './draft'
import { StartConnector } from './StartConnector'
import { TryConnector } from './TryConnector'

const ALL = { to: '/providers', text: 'Providers' }

/** One service: how it is declared, and what comes of asking it once. */
export function ConnectorView() {
  const { provider = 'new' } = useParams()
  const isNew = provider === 'new'
  const asked = useReadConnectorQuery({ params: { provider } }, { skip: isNew })
  const document = lastRead(asked)
  if (!isNew && !document)
    return (
      <DocumentPage all={ALL} title="A service">
        <Unanswered of={[asked]} what="the service" />
      </DocumentPage>
    )
  return <Editor key={provider} provider={provider} kept={document ?? null} />
}

function Editor({ provider, kept }: { provider: string; kept: ConnectorDocument | null }) {
  const [text, setText] = useState(() => (kept ? textOf(kept) : blank()))
  const { data: connections = [] } = useReadConnectionsQuery({})
  const draft = readDraft(text)
  const connection = connections.find((one) => one.provider === provider)
  const isOwner = useIsOwner()
  return (
    <DocumentPage all={ALL} title={kept?.name ?? 'A new service'}>
      <p className="pb-4 text-soft">
        {kept?.about ||
          'A service is declared by one JSON document: what it gives, how it is asked, how it answers, what it charges.'}
        {kept && connection && connection.baseUrl !== kept.address
          ? ` It is asked at ${connection.baseUrl}, which was given with its key.`
          : ''}
      </p>
      <div className="grid grid-cols-[minmax(0,1fr)_380px] items-start gap-6">
        <div className="flex flex-col gap-3">
          {kept ? null : <StartConnector onText={setText} />}
          <DocumentText label="Connector" text={text} draft={draft} isReadOnly={!isOwner} onChange={setText} />
          {isOwner ? (
            <Keeping provider={provider} draft={draft} text={text} kept={kept} connections={connections} />
          ) : null}
        </div>
        {isOwner ? <TryConnector provider={provider} draft={draft} hasKey={connection?.hasKey ?? false} /> : null}
      </div>
    </DocumentPage>
  )
}

interface KeepingProps {
  readonly provider: string
  readonly draft: Draft
  readonly text: string
  readonly kept: ConnectorDocument | null
  readonly connections: readonly Connection[]
}

const namesOf = (connections: readonly Connection[]) =>
  connections.map(({ provider, name }) => ({ id: provider, name }))

/** Keeps what was written; a service that is new asks for its key then. */
function Keeping({ provider, draft, text, kept, connections }: KeepingProps) {
  const navigate = useNavigate()
  const connection = connections.find((one) => one.provider === provider)
  const [keep, keeping] = useKeepConnectorMutation()
  const [remove, removing] = useRemoveConnectionMutation()
  const [fresh, setFresh] = useState<Connection | null>(null)
  const isChanged = kept === null || isOtherwise(kept, draft, text, textOf)
  const submit = async () => {
    if (draft.status !== 'whole') return
    const id = kept ? provider : draft.document.id
    const { data } = await keep({ params: { provider: id }, body: draft.document })
    if (data && !data.hasKey) setFresh(data)
  }
  const forget = async () => {
    const { error } = await remove({ params: { provider } })
    if (!error) navigate('/providers')
  }
  return (
    <>
      <KeepDocument
        text={text}
        fileName={kept ? `${provider}.json` : null}
        isWhole={draft.status === 'whole'}
        isChanged={isChanged}
        isBusy={keeping.isLoading || removing.isLoading}
        wasKept={keeping.data !== undefined}
        problem={keeping.error ?? removing.error}
        obstacle={kept || keeping.data ? null : whyTaken(draft, namesOf(connections))}
        addText="Add this service"
        forgetText="Forget it and its key"
        forgetSays="Its document and its key are gone for good. Save it as a file first, where it may be wanted again."
        onKeep={() => void submit()}
        onForget={kept && connection?.changedAt ? () => void forget() : null}
      />
      {fresh ? <ConnectionDialog connection={fresh} onClose={() => navigate(`/providers/${fresh.provider}`)} /> : null}
    </>
  )
}

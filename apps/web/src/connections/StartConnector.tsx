import { useLazyReadConnectorQuery, useReadConnectionsQuery } from '../api'
import { copyOf } from '../documents/draft'
import { StartFrom } from '../documents/StartFrom'
import { blank, textOf } from './draft'

/** What a new connector begins as. */
export function StartConnector({ onText }: { onText: (text: string) => void }) {
  const { data: connections = [] } = useReadConnectionsQuery({})
  const [read] = useLazyReadConnectorQuery()
  const choose = async (provider: string) => {
    if (provider === '') return onText(blank())
    const { data } = await read({ params: { provider } })
    if (data)
      onText(
        textOf(
          copyOf(
            data,
            connections.map(({ provider }) => ({ id: provider })),
          ),
        ),
      )
  }
  return (
    <StartFrom
      what="a connector"
      choices={connections.map(({ provider, name }) => [provider, `a copy of ${name}`])}
      onChoose={(provider) => void choose(provider)}
      onText={onText}
    />
  )
}

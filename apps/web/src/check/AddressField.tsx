import { EMAIL_KINDS } from '@upper-field/core/tidy'
import { useListView } from '../shell/useListView'
import { usePiles } from '../shell/usePiles'
import { EMAIL_KIND } from '../words/sentences'
import { CountField } from './CountField'

const STATES = [
  ['deliverable', 'Takes mail'],
  ['accept-all', 'Host takes everything'],
  ['undeliverable', 'Takes none'],
  ['not-checked', 'Not checked'],
] as const
const COLORS = ['var(--moss)', 'var(--straw)', 'var(--beet)', 'var(--edge)']

/** Kind of the best address against whether it takes mail. */
export function AddressField() {
  const view = useListView()
  const { data, sign } = usePiles(view)
  const addresses = data?.addresses ?? {}
  const kinds = EMAIL_KINDS.filter((kind) => Object.keys(addresses).some((key) => key.startsWith(`${kind}/`)))
  if (kinds.length === 0) return <p className="pb-4 text-soft">Nobody here has an e-mail address.</p>
  return (
    <CountField
      sign={sign}
      label="Kind of address by what the verifier says"
      rows={{ pile: 'kind', values: kinds.map((kind) => [kind, EMAIL_KIND[kind]]) }}
      columns={{ pile: 'address', values: STATES }}
      colors={COLORS}
      counts={Object.fromEntries(Object.entries(addresses).filter(([key]) => !key.startsWith('none/')))}
    />
  )
}

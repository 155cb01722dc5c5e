import { Glyph } from '../kit/Glyph'
import { useListView } from '../shell/useListView'
import { usePiles } from '../shell/usePiles'
import { LINE } from '../words/sentences'
import { CountField } from './CountField'

const STATUSES = [
  ['in-service', 'In service'],
  ['out-of-service', 'Out of service'],
  ['unreachable', 'Unreachable'],
  ['not-checked', 'Not checked'],
] as const
const COLORS = ['var(--moss)', 'var(--beet)', 'var(--straw)', 'var(--edge)']

/** Line type against status. */
export function LineField() {
  const view = useListView()
  const { data, sign } = usePiles(view)
  const lines = data?.lines ?? {}
  const types = typesIn(lines)
  if (types.length === 0) return null
  return (
    <CountField
      sign={sign}
      label="Line type by status"
      rows={{ pile: 'line', values: types.map((type) => [type, LINE[type] ?? type]) }}
      columns={{ pile: 'status', values: STATUSES }}
      colors={COLORS}
      counts={lines}
      glyphOf={(type) => <Glyph type={type} />}
    />
  )
}

/** Line types that are there, but for contacts without a number. */
export const typesIn = (lines: Readonly<Record<string, number>>): string[] =>
  [...new Set(Object.keys(lines).map((key) => key.split('/')[0] ?? ''))].filter((type) => type !== 'unknown')

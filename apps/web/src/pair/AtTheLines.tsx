import type { PairExample, PairState } from '@upper-field/contract'
import { TextButton } from '../kit/Button'
import { useListView } from '../shell/useListView'
import { bitsText } from '../words/pairing'

/** Pairs that stand right above and right below each line: where it is drawn is judged by them. */
export function AtTheLines({ bins, lines }: { bins: PairState['bins']; lines: PairState['thresholds'] }) {
  return (
    <>
      <Edge title="At the upper line" line={lines.join} bins={bins} />
      <Edge title="At the lower line" line={lines.decide} bins={bins} />
    </>
  )
}

function Edge({ title, line, bins }: { title: string; line: number; bins: PairState['bins'] }) {
  const above = bins.find((bin) => bin.from >= line && bin.examples.length > 0)?.examples[0]
  const below = bins.findLast((bin) => bin.from < line && bin.examples.length > 0)?.examples[0]
  if (!above && !below) return null
  return (
    <section aria-label={title} className="pt-3">
      <h3>{title}</h3>
      {above ? <Example where="above" example={above} /> : null}
      {below ? <Example where="below" example={below} /> : null}
    </section>
  )
}

function Example({ where, example: { sides, score } }: { where: string; example: PairExample }) {
  const view = useListView()
  return (
    <div className="flex items-baseline gap-2 border-t border-line py-1 text-[13px]">
      <span className="w-10 shrink-0 text-soft">{where}</span>
      <ul className="min-w-0 flex-1">
        {sides.map(({ contactId, fullName, company, city }) => (
          <li key={contactId} className="truncate">
            <TextButton onClick={() => view.choose(contactId)}>{fullName || 'No name'}</TextButton>
            <span className="text-soft">{[company, city].filter(Boolean).map((text) => ` · ${text}`)}</span>
          </li>
        ))}
      </ul>
      <span className="num shrink-0">{bitsText(score)}</span>
    </div>
  )
}

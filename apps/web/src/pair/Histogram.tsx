import type { PairState } from '@upper-field/contract'
import { count, plural } from '../words/format'
import { bitsText } from '../words/pairing'

/** The same in the histogram and in the figures under it. */
export const TONES = { joined: 'bg-moss', asked: 'bg-straw', apart: 'bg-slate opacity-45' }

const HEIGHT = 96
/** Where the first bin begins, in bits. */
const LEAST = -20

/** Pairs by score; the height is by the root, so that few are seen beside many. */
export function Histogram({ bins, lines }: { bins: PairState['bins']; lines: PairState['thresholds'] }) {
  const most = Math.sqrt(Math.max(1, ...bins.map(({ pairs }) => pairs)))
  const toneOf = (from: number) =>
    from >= lines.join ? TONES.joined : from >= lines.decide ? TONES.asked : TONES.apart
  return (
    <figure className="py-2">
      <div
        role="img"
        aria-label={bins
          .filter(({ pairs }) => pairs > 0)
          .map(({ from, pairs }) => `${count(pairs)} from ${bitsText(from)}`)
          .join(', ')}
        className="relative flex items-end gap-px border-b border-edge"
        style={{ height: HEIGHT }}
      >
        {bins.map(({ from, pairs }) => (
          <span
            key={from}
            title={`${plural(pairs, 'pair')} from ${bitsText(from)} to ${bitsText(from + 1)}`}
            className={`flex-1 ${toneOf(from)}`}
            style={{ height: pairs === 0 ? 0 : Math.max(2, (Math.sqrt(pairs) / most) * HEIGHT) }}
          />
        ))}
        {[lines.decide, lines.join].map((line) => (
          <span
            key={line}
            className="absolute inset-y-0 border-l border-dashed border-ink"
            style={{ left: `${((line - LEAST) / bins.length) * 100}%` }}
          />
        ))}
      </div>
      <figcaption className="flex justify-between pt-1 text-[12.5px] text-soft">
        <span className="num">−20</span>
        <span>score in bits; heights by the root</span>
        <span className="num">+40</span>
      </figcaption>
    </figure>
  )
}

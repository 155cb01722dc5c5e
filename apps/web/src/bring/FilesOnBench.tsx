import { bytes } from '../words/format'
import type { BenchFile, FileState } from './useBenchFiles'

const STATE: Record<FileState, string> = {
  looking: 'being looked at',
  ready: 'ready to bring in',
  refused: 'cannot be read',
  sending: 'being sent',
}

/** Several files on the bench at once: each with its own mapping and source. */
export function FilesOnBench({
  items,
  shown,
  states,
  onShow,
}: {
  items: readonly BenchFile[]
  shown: number | null
  states: Readonly<Record<number, FileState>>
  onShow: (id: number) => void
}) {
  return (
    <nav
      aria-label="Files on the bench"
      className="h-full w-[200px] shrink-0 overflow-y-auto border-r border-line px-2 py-3"
    >
      <h2 className="px-2 pb-2 text-[15px]">{items.length} on the bench</h2>
      <ul>
        {items.map(({ id, file, sheet }) => {
          const state = states[id] ?? 'looking'
          return (
            <li key={id} className="border-b border-line">
              <button
                type="button"
                aria-pressed={id === shown}
                onClick={() => onShow(id)}
                className={`w-full rounded-small px-2 py-2 text-left hover:bg-lichen ${id === shown ? 'bg-lichen' : ''}`}
              >
                <span className="block truncate font-semibold">{file.name}</span>
                {sheet === null ? null : <span className="block truncate text-[13px]">{sheet}</span>}
                <span className={`text-[13px] ${state === 'refused' ? 'text-beet' : 'text-soft'}`}>
                  {bytes(file.size)} · {STATE[state]}
                </span>
              </button>
            </li>
          )
        })}
      </ul>
    </nav>
  )
}

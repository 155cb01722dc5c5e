import type { Stage } from '@upper-field/core/story'
import { Key } from '../kit/Button'
import { Dialog } from '../kit/Dialog'
import { STAGE } from '../words/sentences'

const GENERAL = [
  ['Ctrl K', 'palette'],
  ['/', 'filter'],
  ['j', 'next contact'],
  ['k', 'contact before'],
  ['Enter', 'story of the contact'],
  ['Escape', 'close the story'],
  ['z', 'take the last join of the open contact apart'],
  ['g l', 'all lists'],
  ['?', 'this page'],
] as const

/** What keys do only in one stage. */
const OF_STAGE: Partial<Record<Stage, readonly (readonly [keys: string, what: string])[]>> = {
  tidy: [
    ['v', 'repairs, or contacts'],
    ['x', 'pick the chosen contact'],
    ['a', 'add a step'],
    ['e', 'the cell that needs a hand'],
    ['o', 'leave the repair out for the chosen contact'],
    ['z', 'take back what was changed last'],
  ],
  pair: [
    ['m', 'join the two'],
    ['x', 'keep them apart'],
    ['s', 'leave them for later'],
    ['w', 'join one more with the two'],
    ['1', 'take a value from the other one: digits 1 to 7'],
    ['v', 'pairs, contacts, shared lines, other lists'],
    ['z', 'take back what was decided last'],
  ],
}

export function Shortcuts({
  isOpen,
  onClose,
  stage: open,
  letters,
}: {
  isOpen: boolean
  onClose: () => void
  stage: Stage | undefined
  letters: Record<Stage, string>
}) {
  const stages = Object.entries(letters).map(
    ([stage, letter]) => [`g ${letter}`, `go to ${STAGE[stage as Stage]}`] as const,
  )
  return (
    <Dialog title="Shortcuts" isOpen={isOpen} onClose={onClose} isWide>
      <dl className="grid grid-cols-2 gap-x-8 gap-y-1.5">
        {[...GENERAL, ...((open && OF_STAGE[open]) ?? []), ...stages].map(([keys, what]) => (
          <div key={keys + what} className="flex items-center justify-between gap-3 border-b border-line pb-1.5">
            <dd>{what}</dd>
            <dt className="flex gap-1">
              {keys.split(' ').map((key) => (
                <Key key={key}>{key}</Key>
              ))}
            </dt>
          </div>
        ))}
      </dl>
    </Dialog>
  )
}

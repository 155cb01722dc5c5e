import { count, plural } from '../words/format'
import type { Draft } from './draft'

interface DocumentTextProps {
  readonly label: string
  readonly text: string
  readonly draft: Draft<unknown>
  readonly isReadOnly: boolean
  readonly onChange: (text: string) => void
}

/** A document as it is typed, and what is to be mended in it. */
export function DocumentText({ label, text, draft, isReadOnly, onChange }: DocumentTextProps) {
  return (
    <>
      <label className="font-semibold" htmlFor="document">
        {label}
      </label>
      <textarea
        id="document"
        className="num h-[420px] w-full resize-y rounded-small border border-edge bg-surface p-3 text-[13px] leading-5"
        spellCheck={false}
        readOnly={isReadOnly}
        aria-describedby="document-problems"
        aria-invalid={draft.status === 'wrong'}
        value={text}
        onChange={(event) => onChange(event.target.value)}
      />
      <Problems draft={draft} />
    </>
  )
}

/** Problems that are shown at once. */
const MOST = 8

function Problems({ draft }: { draft: Draft<unknown> }) {
  if (draft.status === 'whole')
    return (
      <p id="document-problems" role="status" className="text-moss">
        Whole: nothing is missing, and nothing contradicts itself.
      </p>
    )
  return (
    <div id="document-problems" role="status" className="rounded-small bg-beet-bg px-3 py-2 text-beet">
      <p className="font-semibold">{plural(draft.problems.length, 'thing')} to mend</p>
      <ul>
        {draft.problems.slice(0, MOST).map(({ place, message }) => (
          <li key={place + message}>
            {place ? <code className="num pr-2 text-[13px]">{place}</code> : null}
            {message}
          </li>
        ))}
        {draft.problems.length > MOST ? <li>and {count(draft.problems.length - MOST)} more</li> : null}
      </ul>
    </div>
  )
}

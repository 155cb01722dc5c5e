import type { InputHTMLAttributes, ReactNode, SelectHTMLAttributes, TextareaHTMLAttributes } from 'react'
import { useId } from 'react'

const CONTROL = 'w-full min-h-8 rounded-small border border-edge bg-surface px-2 py-1 text-ink placeholder:text-soft'

interface Labelled {
  readonly label: string
  readonly hint?: ReactNode
  readonly error?: string | undefined
}

export function TextField({ label, hint, error, ...rest }: Labelled & InputHTMLAttributes<HTMLInputElement>) {
  const id = useId()
  return (
    <div>
      <label htmlFor={id} className="block pb-1 font-semibold">
        {label}
      </label>
      <input
        id={id}
        aria-invalid={error ? true : undefined}
        aria-describedby={error || hint ? `${id}-more` : undefined}
        className={CONTROL}
        {...rest}
      />
      <More id={`${id}-more`} hint={hint} error={error} />
    </div>
  )
}

export function TextArea({ label, hint, error, ...rest }: Labelled & TextareaHTMLAttributes<HTMLTextAreaElement>) {
  const id = useId()
  return (
    <div>
      <label htmlFor={id} className="block pb-1 font-semibold">
        {label}
      </label>
      <textarea
        id={id}
        aria-invalid={error ? true : undefined}
        aria-describedby={error || hint ? `${id}-more` : undefined}
        className={`${CONTROL} num text-[13px]`}
        {...rest}
      />
      <More id={`${id}-more`} hint={hint} error={error} />
    </div>
  )
}

export function SelectField({
  label,
  hint,
  error,
  children,
  hidesLabel = false,
  ...rest
}: Labelled & { hidesLabel?: boolean } & SelectHTMLAttributes<HTMLSelectElement>) {
  const id = useId()
  return (
    <div>
      <label htmlFor={id} className={hidesLabel ? 'sr-only' : 'block pb-1 font-semibold'}>
        {label}
      </label>
      <select id={id} className={CONTROL} {...rest}>
        {children}
      </select>
      <More id={`${id}-more`} hint={hint} error={error} />
    </div>
  )
}

function More({ id, hint, error }: { id: string; hint?: ReactNode; error?: string | undefined }) {
  if (!hint && !error) return null
  return (
    <p id={id} className={`pt-1 text-[13px] ${error ? 'text-beet' : 'text-soft'}`}>
      {error ?? hint}
    </p>
  )
}

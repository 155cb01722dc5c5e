import type { InputHTMLAttributes, ReactNode, SelectHTMLAttributes, TextareaHTMLAttributes } from 'react'
import { useId } from 'react'

const CONTROL = 'w-full min-h-8 rounded-small border border-edge bg-surface px-2 py-1 text-ink placeholder:text-soft'

interface Labelled {
  readonly label: string
  readonly hint?: ReactNode
  readonly error?: string | undefined
  readonly hidesLabel?: boolean
}

/** A control under its label, with what is to be said of it below. */
function Field({
  id,
  label,
  hint,
  error,
  hidesLabel = false,
  children,
}: Labelled & { id: string; children: ReactNode }) {
  return (
    <div>
      <label htmlFor={id} className={hidesLabel ? 'sr-only' : 'block pb-1 font-semibold'}>
        {label}
      </label>
      {children}
      {hint || error ? (
        <p id={moreId(id)} className={`pt-1 text-[13px] ${error ? 'text-beet' : 'text-soft'}`}>
          {error ?? hint}
        </p>
      ) : null}
    </div>
  )
}

const moreId = (id: string): string => `${id}-more`

/** What assistive technology is told of a control that is typed into. */
const told = (id: string, { hint, error }: Labelled) => ({
  id,
  'aria-invalid': error ? (true as const) : undefined,
  'aria-describedby': error || hint ? moreId(id) : undefined,
})

export function TextField({ label, hint, error, ...rest }: Labelled & InputHTMLAttributes<HTMLInputElement>) {
  const id = useId()
  const labelled = { label, hint, error }
  return (
    <Field id={id} {...labelled}>
      <input {...told(id, labelled)} className={CONTROL} {...rest} />
    </Field>
  )
}

export function TextArea({ label, hint, error, ...rest }: Labelled & TextareaHTMLAttributes<HTMLTextAreaElement>) {
  const id = useId()
  const labelled = { label, hint, error }
  return (
    <Field id={id} {...labelled}>
      <textarea {...told(id, labelled)} className={`${CONTROL} num text-[13px]`} {...rest} />
    </Field>
  )
}

export function SelectField({
  label,
  hint,
  error,
  children,
  hidesLabel = false,
  ...rest
}: Labelled & SelectHTMLAttributes<HTMLSelectElement>) {
  const id = useId()
  return (
    <Field id={id} label={label} hint={hint} error={error} hidesLabel={hidesLabel}>
      <select id={id} className={CONTROL} {...rest}>
        {children}
      </select>
    </Field>
  )
}

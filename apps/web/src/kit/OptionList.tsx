import type { ReactNode } from 'react'
import type { Options } from './useOptions'

/** What a field that has options tells assistive technology. */
export const optionsTold = (id: string, { all, at }: Pick<Options<unknown>, 'all' | 'at'>) => ({
  role: 'combobox' as const,
  autoComplete: 'off' as const,
  'aria-expanded': all.length > 0,
  'aria-controls': id,
  'aria-activedescendant': all.length > 0 && at !== null ? optionId(id, at) : undefined,
})

const optionId = (id: string, at: number): string => `${id}-${at}`

interface OptionListProps<T> {
  readonly id: string
  readonly label: string
  readonly options: Options<T>
  readonly keyOf: (one: T) => string
  readonly shown: (one: T) => ReactNode
  /** Where it stands under its field, and how wide it is. */
  readonly className: string
  readonly optionClass: string
}

/** The options under a field, to be clicked; keys are heard by the field. */
export function OptionList<T>(props: OptionListProps<T>) {
  const { id, label, options, keyOf, shown, className, optionClass } = props
  return (
    <div
      id={id}
      role="listbox"
      aria-label={label}
      className={`absolute left-0 z-40 rounded-small border border-edge bg-surface py-1 shadow-lg ${className} ${options.all.length > 0 ? '' : 'hidden'}`}
    >
      {options.all.map((one, at) => (
        // biome-ignore lint/a11y/useKeyWithClickEvents: arrows and Enter work in the field itself
        <div
          key={keyOf(one)}
          id={optionId(id, at)}
          role="option"
          tabIndex={-1}
          aria-selected={at === options.at}
          onMouseDown={(event) => event.preventDefault()}
          onClick={() => options.take(at)}
          className={`cursor-pointer px-2 ${optionClass} ${at === options.at ? 'bg-lichen' : ''}`}
        >
          {shown(one)}
        </div>
      ))}
    </div>
  )
}

import type { ButtonHTMLAttributes } from 'react'
import { Link, type LinkProps } from 'react-router'

type Look = 'main' | 'plain' | 'quiet' | 'danger'

const LOOKS: Record<Look, string> = {
  main: 'bg-moss text-on-moss border-moss hover:bg-deep-moss',
  plain: 'bg-surface text-ink border-edge hover:bg-lichen',
  quiet: 'border-transparent text-ink hover:bg-lichen',
  danger: 'bg-surface text-beet border-beet hover:bg-beet-bg',
}
const SHAPE =
  'inline-flex items-center justify-center gap-2 min-h-8 rounded-small border px-3 py-1 font-semibold transition-colors duration-100 disabled:opacity-55 disabled:cursor-not-allowed'

export function Button({
  look = 'plain',
  className = '',
  type = 'button',
  ...rest
}: ButtonHTMLAttributes<HTMLButtonElement> & { look?: Look }) {
  return <button type={type} className={`${SHAPE} ${LOOKS[look]} ${className}`} {...rest} />
}

export function ButtonLink({ look = 'plain', className = '', ...rest }: LinkProps & { look?: Look }) {
  return <Link className={`${SHAPE} ${LOOKS[look]} ${className}`} {...rest} />
}

/** A word in a sentence that does something. */
export function TextButton({ className = '', type = 'button', ...rest }: ButtonHTMLAttributes<HTMLButtonElement>) {
  return (
    <button
      type={type}
      className={`text-slate underline underline-offset-2 hover:text-ink disabled:opacity-55 ${className}`}
      {...rest}
    />
  )
}

export function Key({ children }: { children: string }) {
  return (
    <kbd className="num rounded-small border border-edge px-1 text-[12px] leading-4 text-soft bg-surface">
      {children}
    </kbd>
  )
}

import type { ReactNode } from 'react'
import { Link } from 'react-router'
import { ButtonLink } from '../kit/Button'

/** Beside a stage that needs a service, where none is connected. */
export function NotConnected({
  title,
  next,
  nextText,
  children,
}: {
  title: string
  next: string
  nextText: string
  children: ReactNode
}) {
  return (
    <div className="flex flex-col gap-3">
      <h2>{title}</h2>
      <p className="text-soft">{children}</p>
      <p>
        <Link to="/providers" className="text-slate underline underline-offset-2 hover:text-ink">
          See what is connected
        </Link>
      </p>
      <ButtonLink to={next}>{nextText}</ButtonLink>
    </div>
  )
}

import { useState } from 'react'
import { Navigate, NavLink, Outlet, useLocation } from 'react-router'
import { useReadMeQuery } from '../api'
import { Key } from '../kit/Button'
import { Loading } from '../kit/Notice'
import { AccountMenu } from './AccountMenu'
import { Palette } from './Palette'
import { ROOMS } from './rooms'
import { useJobEvents } from './useJobEvents'
import { useKeys } from './useKeys'
import { WaitingNotice } from './WaitingNotice'

/** The frame of everything behind the sign-in: who is there, the way to the rooms, the palette. */
export function Frame() {
  const me = useReadMeQuery({})
  const { pathname, search } = useLocation()
  if (me.isLoading) return <Loading what="who you are" />
  if (!me.data) return <Navigate to={`/sign-in?then=${encodeURIComponent(pathname + search)}`} replace />
  return <Signed />
}

function Signed() {
  const [isPaletteOpen, setPaletteOpen] = useState(false)
  useJobEvents()
  useKeys({ 'Ctrl K': () => setPaletteOpen(true) })
  return (
    <div className="flex h-full flex-col">
      <header className="flex h-11 shrink-0 items-center gap-4 border-b border-line px-4">
        <NavLink to="/lists" className="flex items-center gap-2 font-heading text-[15px] font-bold">
          <Mark /> Upper Field
        </NavLink>
        <nav aria-label="Rooms" className="flex gap-4">
          {ROOMS.map(([to, name]) => (
            <NavLink
              key={to}
              to={to}
              className={({ isActive }) => (isActive ? 'font-semibold' : 'text-soft hover:text-ink')}
            >
              {name}
            </NavLink>
          ))}
        </nav>
        <div id="list-name" className="flex min-w-0 items-center gap-4" />
        <div className="ml-auto flex items-center gap-3">
          <div id="list-search" className="flex items-center gap-3" />
          <button
            type="button"
            onClick={() => setPaletteOpen(true)}
            aria-label="Open the palette"
            className="rounded-small"
          >
            <Key>Ctrl K</Key>
          </button>
          <AccountMenu />
        </div>
      </header>
      <WaitingNotice />
      <Palette isOpen={isPaletteOpen} onClose={() => setPaletteOpen(false)} />
      <div className="min-h-0 flex-1">
        <Outlet />
      </div>
    </div>
  )
}

const Mark = () => (
  <svg viewBox="0 0 24 20" width="24" height="20" aria-hidden="true">
    <path d="M1 18v-5h6V9h7V4h9v14z" fill="var(--hill)" stroke="var(--moss)" strokeWidth="1.6" />
  </svg>
)

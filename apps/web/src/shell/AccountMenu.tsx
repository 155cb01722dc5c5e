import { DropdownMenu as Menu } from 'radix-ui'
import { useState } from 'react'
import { useNavigate } from 'react-router'
import { api, useReadMeQuery } from '../api'
import { useAppDispatch } from '../store'
import { useOwnRooms } from './rooms'
import { applyTheme, readTheme, type Theme } from './theme'

const THEMES: readonly (readonly [Theme, string])[] = [
  ['system', 'Light or dark as this machine'],
  ['light', 'Light'],
  ['dark', 'Dark'],
]
const ITEM = 'rounded-small px-2 py-1 outline-none data-[highlighted]:bg-lichen cursor-pointer'

export function AccountMenu() {
  const { data: me } = useReadMeQuery({})
  const rooms = useOwnRooms()
  const [theme, setTheme] = useState(readTheme)
  const [isRefused, setIsRefused] = useState(false)
  const dispatch = useAppDispatch()
  const navigate = useNavigate()
  if (!me) return null
  const signOut = async () => {
    const isOut = await signedOut()
    setIsRefused(!isOut)
    if (!isOut) return
    await navigate('/sign-in')
    dispatch(api.util.resetApiState())
  }
  return (
    <>
      {isRefused ? (
        <p role="alert" className="text-[13px] text-beet">
          You are still signed in: the server could not be asked. Try again.
        </p>
      ) : null}
      <Menu.Root>
        <Menu.Trigger
          className="num flex size-7 items-center justify-center rounded-full bg-lichen text-[12px] font-bold"
          aria-label={`Account of ${me.name}`}
        >
          {initials(me.name)}
        </Menu.Trigger>
        <Menu.Portal>
          <Menu.Content
            align="end"
            sideOffset={6}
            className="z-50 w-64 rounded-small border border-edge bg-surface p-1 shadow-lg"
          >
            <div className="px-2 py-1">
              <div className="font-semibold">{me.name}</div>
              <div className="text-[13px] text-soft">
                {me.email} · {me.role}
              </div>
            </div>
            <Menu.Separator className="my-1 border-t border-line" />
            <Menu.RadioGroup
              value={theme}
              onValueChange={(next) => {
                applyTheme(next as Theme)
                setTheme(next as Theme)
              }}
            >
              {THEMES.map(([value, name]) => (
                <Menu.RadioItem key={value} value={value} className={ITEM}>
                  <span className="inline-block w-4">{theme === value ? '•' : ''}</span>
                  {name}
                </Menu.RadioItem>
              ))}
            </Menu.RadioGroup>
            <Menu.Separator className="my-1 border-t border-line" />
            {rooms.map(([to, name]) => (
              <Menu.Item key={to} className={ITEM} onSelect={() => void navigate(to)}>
                {name}
              </Menu.Item>
            ))}
            <Menu.Item className={ITEM} onSelect={() => void signOut()}>
              Sign out
            </Menu.Item>
          </Menu.Content>
        </Menu.Portal>
      </Menu.Root>
    </>
  )
}

/** Whether the server has ended the session: until it has, whoever opens this browser is signed in. */
async function signedOut(): Promise<boolean> {
  const headers = { 'content-type': 'application/json' }
  const answer = await fetch('/api/auth/sign-out', { method: 'POST', headers, body: '{}' }).catch(() => null)
  return answer !== null && (answer.ok || answer.status === 401)
}

const initials = (name: string): string =>
  name
    .split(/\s+/)
    .map((word) => word[0] ?? '')
    .join('')
    .slice(0, 2)
    .toUpperCase()

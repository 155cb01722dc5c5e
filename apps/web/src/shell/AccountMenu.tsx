import { DropdownMenu as Menu } from 'radix-ui'
import { useState } from 'react'
import { useNavigate } from 'react-router'
import { api, useReadMeQuery } from '../api'
import { useAppDispatch } from '../store'
import { applyTheme, readTheme, type Theme } from './theme'

const THEMES: readonly (readonly [Theme, string])[] = [
  ['system', 'Light or dark as this machine'],
  ['light', 'Light'],
  ['dark', 'Dark'],
]
const ITEM = 'rounded-small px-2 py-1 outline-none data-[highlighted]:bg-lichen cursor-pointer'

export function AccountMenu() {
  const { data: me } = useReadMeQuery({})
  const [theme, setTheme] = useState(readTheme)
  const dispatch = useAppDispatch()
  const navigate = useNavigate()
  if (!me) return null
  const signOut = async () => {
    await fetch('/api/auth/sign-out', { method: 'POST', headers: { 'content-type': 'application/json' }, body: '{}' })
    await navigate('/sign-in')
    dispatch(api.util.resetApiState())
  }
  return (
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
          <Menu.Item className={ITEM} onSelect={() => void navigate('/people')}>
            {me.role === 'owner' ? 'People and sessions' : 'Your account'}
          </Menu.Item>
          {me.role === 'viewer' ? null : (
            <Menu.Item className={ITEM} onSelect={() => void navigate('/programs')}>
              Other programs
            </Menu.Item>
          )}
          <Menu.Item className={ITEM} onSelect={() => void signOut()}>
            Sign out
          </Menu.Item>
        </Menu.Content>
      </Menu.Portal>
    </Menu.Root>
  )
}

const initials = (name: string): string =>
  name
    .split(/\s+/)
    .map((word) => word[0] ?? '')
    .join('')
    .slice(0, 2)
    .toUpperCase()

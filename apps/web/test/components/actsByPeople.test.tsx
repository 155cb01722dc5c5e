/** @jest-environment <rootDir>/apps/web/test/components/browser.mjs */
import { describe, expect, it } from '@jest/globals'
import { screen, waitFor } from '@testing-library/react'
import type { TidyState } from '@upper-field/contract'
import { ActsByPeople } from '../../src/tidy/ActsByPeople'
import { OPERATOR, rendered } from './rendered'
import { TIDY } from './tidying'

const actOf = (n: number, more: Partial<TidyState['acts'][number]> = {}): TidyState['acts'][number] => ({
  id: `6f1c2a9e-7d1b-4f0e-9a53-0b6a5f7a2c${10 + n}`,
  kind: 'edit',
  contacts: 1,
  detail: `company: Inn ${n}`,
  madeBy: 'Maren Oldershaw',
  madeAt: '2026-11-28T09:00:00Z',
  undoneAt: null,
  ...more,
})
const TWELVE = Array.from({ length: 12 }, (_, n) => actOf(n))

const shown = (more: Partial<TidyState>, role: 'operator' | 'viewer' = 'operator') =>
  rendered(<ActsByPeople state={{ ...TIDY, ...more }} />, {
    readMe: { ...OPERATOR, role },
    takeActBack: () => new Promise(() => {}),
  })

describe('what people have changed', () => {
  it('is told latest first, the older ones when they are asked for, and each is taken back', async () => {
    const { user, sent } = shown({ acts: TWELVE })
    expect(screen.getAllByRole('listitem')).toHaveLength(8)
    await user.click(screen.getByRole('button', { name: '4 older' }))
    expect(screen.getAllByRole('listitem')).toHaveLength(12)
    await waitFor(() => expect(screen.getAllByRole('button', { name: 'Take back' })).toHaveLength(12))
    await user.click(screen.getAllByRole('button', { name: 'Take back' })[11] as HTMLElement)
    await waitFor(() => expect(sent.at(-1)?.path).toContain(TWELVE[11]?.id))
    expect(screen.queryByText(/from the story of a contact/)).toBeNull()
  })

  it('says where those are that are not told', async () => {
    const { user } = shown({ acts: TWELVE, hasOlderActs: true })
    await user.click(screen.getByRole('button', { name: '4 older' }))
    expect(screen.getByText('Those before are taken back from the story of a contact.')).toBeTruthy()
  })

  it('is not offered to be taken back twice, nor by whoever may only look', async () => {
    const { unmount } = shown({ acts: [actOf(1, { undoneAt: '2026-11-28T10:00:00Z' }), actOf(2)] })
    await waitFor(() => expect(screen.getAllByRole('button', { name: 'Take back' })).toHaveLength(1))
    expect(screen.getByText('taken back')).toBeTruthy()
    unmount()
    shown({ acts: [actOf(2)] }, 'viewer')
    await screen.findByText(/Inn 2/)
    expect(screen.queryByRole('button', { name: 'Take back' })).toBeNull()
  })
})

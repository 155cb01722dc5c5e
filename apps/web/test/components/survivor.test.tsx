/** @jest-environment <rootDir>/apps/web/test/components/browser.mjs */
import { expect, it } from '@jest/globals'
import { act, renderHook } from '@testing-library/react'
import { DEFAULT_SURVIVORSHIP } from '@upper-field/core/pair'
import { useSurvivor } from '../../src/pair/useSurvivor'
import { side } from '../pairSide'

const SIDES = [
  side({ contactId: 1, fullName: 'M. Oldershaw', company: 'Heron Lodge' }),
  side({ contactId: 2, fullName: 'Maren Oldershaw' }),
  side({ contactId: 3, fullName: 'Maren Oldershaw-Krug', company: 'Heron Lodge Ltd' }),
]
const surviving = (sides = SIDES) =>
  renderHook(({ these }) => useSurvivor(these, DEFAULT_SURVIVORSHIP), { initialProps: { these: sides } })

it('goes round whoever says something of a part, and comes back to where it was', () => {
  const { result } = surviving()
  const first = result.current.sourceOf('company')
  act(() => result.current.flip('company'))
  const second = result.current.sourceOf('company')
  expect([first, second].toSorted()).toEqual([1, 3])
  act(() => result.current.flip('company'))
  expect(result.current.sourceOf('company')).toBe(first)
  expect(result.current.chosen).toEqual({})
})

it('keeps a choice only where it differs from what the rules say', () => {
  const { result } = surviving()
  const byRule = Number(result.current.sourceOf('name'))
  const other = SIDES.map(({ contactId }) => contactId).find((id) => id !== byRule) ?? 0
  act(() => result.current.choose('name', other))
  expect([result.current.sourceOf('name'), result.current.chosen]).toEqual([other, { name: other }])
  act(() => result.current.choose('name', byRule))
  expect(result.current.chosen).toEqual({})
})

it('forgets a choice of somebody who is not joined any more', () => {
  const { result, rerender } = surviving()
  const byRule = Number(result.current.sourceOf('company'))
  const chosen = byRule === 1 ? 3 : 1
  act(() => result.current.choose('company', chosen))
  rerender({ these: SIDES.filter(({ contactId }) => contactId !== chosen) })
  expect([result.current.sourceOf('company'), result.current.chosen]).toEqual([byRule, {}])
})

/** @jest-environment <rootDir>/apps/web/test/components/browser.mjs */
import { describe, expect, it, jest } from '@jest/globals'
import { act, renderHook } from '@testing-library/react'
import { optionsTold } from '../../src/kit/OptionList'
import { useOptions } from '../../src/kit/useOptions'
import { usePaused } from '../../src/kit/usePaused'

const offered = (all: readonly string[], isFirstChosen = false) => {
  const taken: string[] = []
  let closed = 0
  const hook = renderHook(
    (given: readonly string[]) =>
      useOptions({ all: given, isFirstChosen, onTake: (one) => taken.push(one), onClose: () => closed++ }),
    { initialProps: all },
  )
  const press = (...names: string[]) => {
    const heard = names.map((name) => {
      let isHeard = false
      act(() => {
        isHeard = hook.result.current.key(name)
      })
      return isHeard
    })
    return heard
  }
  return { ...hook, press, taken, closed: () => closed }
}

describe('options under a field', () => {
  it('are gone through by the arrows, round and round', () => {
    const { result, press } = offered(['a', 'b', 'c'])
    expect(result.current.at).toBeNull()
    press('ArrowUp')
    expect(result.current.at).toBe(2)
    press('ArrowDown')
    expect(result.current.at).toBe(0)
    press('ArrowDown', 'ArrowDown', 'ArrowDown')
    expect(result.current.at).toBe(0)
  })

  it('leave Enter to the field until one is chosen, or take the first at once', () => {
    const chosen = offered(['a', 'b'])
    expect(chosen.press('Enter')).toEqual([false])
    expect(chosen.press('ArrowDown', 'Enter')).toEqual([true, true])
    expect([chosen.taken, chosen.closed()]).toEqual([['a'], 1])
    const first = offered(['a', 'b'], true)
    expect(first.press('Enter')).toEqual([true])
    expect(first.taken).toEqual(['a'])
  })

  it('are closed by Escape without any being taken, and begin anew', () => {
    const { result, press, taken, closed } = offered(['a', 'b'])
    press('ArrowDown', 'ArrowDown', 'Escape')
    expect([taken, closed(), result.current.at]).toEqual([[], 1, null])
  })

  it('hear no other key, and none where there are none', () => {
    expect(offered(['a']).press('b', 'Tab')).toEqual([false, false])
    expect(offered([]).press('ArrowDown', 'Enter', 'Escape')).toEqual([false, false, false])
  })

  it('choose the last where fewer are left than before', () => {
    const { result, rerender, press, taken } = offered(['a', 'b', 'c'], true)
    press('ArrowDown', 'ArrowDown')
    rerender(['a'])
    expect(result.current.at).toBe(0)
    press('Enter')
    expect(taken).toEqual(['a'])
  })

  it('are told to assistive technology with their field', () => {
    expect(optionsTold('x', { all: ['a'], at: 0 })).toMatchObject({
      role: 'combobox',
      'aria-expanded': true,
      'aria-controls': 'x',
      'aria-activedescendant': 'x-0',
    })
    expect(optionsTold('x', { all: [], at: 0 })['aria-activedescendant']).toBeUndefined()
    expect(optionsTold('x', { all: ['a'], at: null })['aria-activedescendant']).toBeUndefined()
  })
})

describe('what is typed', () => {
  it('is told once nobody types for a moment, and only what stands there then', () => {
    jest.useFakeTimers()
    const told: string[] = []
    const { rerender, unmount } = renderHook((typed: string) => usePaused(typed, (text) => told.push(text)), {
      initialProps: '',
    })
    act(() => jest.advanceTimersByTime(250))
    for (const typed of ['k', 'ke', 'kel']) {
      rerender(typed)
      act(() => jest.advanceTimersByTime(200))
    }
    expect(told).toEqual([''])
    act(() => jest.advanceTimersByTime(50))
    expect(told).toEqual(['', 'kel'])
    rerender('kels')
    unmount()
    act(() => jest.advanceTimersByTime(1000))
    expect(told).toEqual(['', 'kel'])
    jest.useRealTimers()
  })
})

/** @jest-environment <rootDir>/apps/web/test/components/browser.mjs */
import { afterEach, beforeEach, describe, expect, it, jest } from '@jest/globals'
import { act, fireEvent, renderHook } from '@testing-library/react'
import type { TidyState } from '@upper-field/contract'
import { newStep } from '@upper-field/core/tidy'
import { useTyped } from '../../src/kit/useTyped'
import { useReadAhead } from '../../src/shell/readOn'
import { type KeyMap, useKeys } from '../../src/shell/useKeys'
import { usePicked } from '../../src/tidy/usePicked'
import { useRoutineDraft } from '../../src/tidy/useRoutineDraft'

describe('usePicked', () => {
  it('adds and takes away, and is empty when let go', () => {
    const { result } = renderHook(() => usePicked())
    act(() => result.current.onPick([1, 2, 3], true))
    act(() => result.current.onPick([2, 9], false))
    expect([...result.current.picked]).toEqual([1, 3])
    act(() => result.current.clear())
    expect(result.current.picked.size).toBe(0)
  })
})

describe('useRoutineDraft', () => {
  const steps = [newStep('numbers', 'numbers'), newStep('names', 'names')]
  const state = { routine: { version: 1, steps } } as unknown as TidyState
  const drafted = () => {
    const added: string[] = []
    return { added, ...renderHook(() => useRoutineDraft(state, (id) => added.push(id))) }
  }
  const ids = (draft: { routine: { steps: readonly { id: string }[] } }) => draft.routine.steps.map(({ id }) => id)

  it('is the routine in force until something is changed, and again when the change is undone', () => {
    const { result } = drafted()
    expect(result.current.isChanged).toBe(false)
    act(() => result.current.move('names', 'numbers'))
    expect([ids(result.current), result.current.isChanged]).toEqual([['names', 'numbers'], true])
    act(() => result.current.move('names', 'numbers'))
    expect([ids(result.current), result.current.isChanged]).toEqual([['numbers', 'names'], false])
  })

  it('gives every step added an id of its own, and tells it', () => {
    const { result, added } = drafted()
    act(() => result.current.add('names'))
    act(() => result.current.add('names'))
    expect(added).toEqual(['names-2', 'names-3'])
    expect(ids(result.current)).toEqual(['numbers', 'names', 'names-2', 'names-3'])
    act(() => result.current.remove('names-2'))
    act(() => result.current.discard())
    expect(ids(result.current)).toEqual(['numbers', 'names'])
  })
})

describe('useKeys', () => {
  const listening = (keys: KeyMap) => renderHook(() => useKeys(keys))
  const type = (key: string, more: KeyboardEventInit = {}, on: Element = document.body) =>
    fireEvent.keyDown(on, { key, ...more })

  it('acts on a key and on two in a row, and forgets the first after a while', () => {
    jest.useFakeTimers()
    const went: string[] = []
    listening({ x: () => went.push('x'), 'g t': () => went.push('g t') })
    for (const key of ['x', 'g', 't', 't']) type(key)
    expect(went).toEqual(['x', 'g t'])
    type('g')
    jest.advanceTimersByTime(2000)
    type('t')
    expect(went).toHaveLength(2)
    jest.useRealTimers()
  })

  it('stays out of what is typed, out of dialogs, and out of keys of the browser', () => {
    let times = 0
    listening({ x: () => times++, Enter: () => times++ })
    document.body.innerHTML = '<input id="text"><input id="tick" type="checkbox"><button id="act">Act</button>'
    const part = (id: string) => document.getElementById(id) as HTMLElement
    type('x', {}, part('text'))
    type('x', { ctrlKey: true })
    type('Enter', {}, part('act'))
    expect(times).toBe(0)
    type('x', {}, part('tick'))
    expect(times).toBe(1)
    document.body.innerHTML += '<div role="dialog"></div>'
    type('x')
    expect(times).toBe(1)
    document.body.innerHTML = ''
  })

  it('opens the palette from anywhere, and listens no more once the view has gone', () => {
    let times = 0
    const { unmount } = listening({ 'Ctrl K': () => times++ })
    type('k', { ctrlKey: true })
    type('K', { metaKey: true })
    expect(times).toBe(2)
    unmount()
    type('k', { ctrlKey: true })
    expect(times).toBe(2)
  })
})

describe('useReadAhead', () => {
  it('reads on while few are ready: not twice at once, not what was refused, and that too once it was read again', () => {
    let pages = 0
    const fetchNextPage = () => pages++
    const idle = { hasNextPage: true, isFetching: false, error: undefined, fetchNextPage }
    const { rerender } = renderHook(({ ready, asked }) => useReadAhead(ready, asked), {
      initialProps: { ready: 3, asked: idle as Parameters<typeof useReadAhead>[1] },
    })
    const after = (ready: number, more: object = {}) => {
      rerender({ ready, asked: { ...idle, ...more } })
      return pages
    }
    expect(pages).toBe(0)
    expect(after(2)).toBe(1)
    expect(after(2, { isFetching: true })).toBe(1)
    expect(after(2, { error: 'away' })).toBe(1)
    expect(after(1, { error: 'away' })).toBe(1)
    expect(after(1, { isFetching: true })).toBe(1)
    expect(after(1)).toBe(2)
    expect(after(1, { hasNextPage: false })).toBe(2)
  })
})

describe('useTyped', () => {
  /** Every text that was shown beside what was kept then, and what was handed on to be kept. */
  const typing = (kept: string) => {
    const shown: string[] = []
    const handedOn: string[] = []
    const hook = renderHook(
      (now: string) => {
        const [typed, type] = useTyped(now, (text) => handedOn.push(text))
        shown.push(`${now}: ${typed}`)
        return { typed, type }
      },
      { initialProps: kept },
    )
    return { ...hook, shown, handedOn }
  }
  const wait = () => act(() => jest.advanceTimersByTime(1000))
  beforeEach(() => void jest.useFakeTimers())
  afterEach(() => void jest.useRealTimers())

  it('hands on what was typed, once', () => {
    const { result, handedOn, rerender } = typing('')
    for (const text of ['k', 'ke', 'kel']) act(() => result.current.type(text))
    expect(handedOn).toEqual([])
    wait()
    rerender('kel')
    wait()
    expect([handedOn, result.current.typed]).toEqual([['kel'], 'kel'])
  })

  it('never shows nor hands on a text of before beside one that came from elsewhere', () => {
    const { result, shown, handedOn, rerender } = typing('city:kelso')
    rerender('fell:suppressed')
    wait()
    rerender('')
    wait()
    act(() => result.current.type('mel'))
    rerender('city:selkirk')
    wait()
    rerender('')
    wait()
    expect(handedOn).toEqual([])
    expect(new Set(shown)).toEqual(
      new Set([
        'city:kelso: city:kelso',
        'fell:suppressed: fell:suppressed',
        ': ',
        ': mel',
        'city:selkirk: city:selkirk',
      ]),
    )
  })

  it('keeps letters that were typed while a text was on its way', () => {
    const { result, handedOn, rerender } = typing('')
    act(() => result.current.type('ke'))
    wait()
    act(() => result.current.type('kel'))
    rerender('ke')
    expect(result.current.typed).toBe('kel')
    wait()
    expect(handedOn).toEqual(['ke', 'kel'])
  })

  it('keeps a letter typed between the moment others are handed on and the next drawing', () => {
    const { result, handedOn, rerender } = typing('')
    act(() => result.current.type('k'))
    const asDrawn = result.current
    act(() => {
      jest.advanceTimersByTime(1000)
      asDrawn.type('ke')
    })
    rerender('k')
    expect(result.current.typed).toBe('ke')
    wait()
    expect(handedOn).toEqual(['k', 'ke'])
  })

  it('keeps letters where a text is handed on before the one before it has come back', () => {
    const { result, handedOn, rerender } = typing('')
    for (const text of ['lev', 'level:', 'level:head']) {
      act(() => result.current.type(text))
      wait()
    }
    rerender('lev')
    act(() => result.current.type('level:head or'))
    rerender('level:head')
    expect(result.current.typed).toBe('level:head or')
    wait()
    rerender('level:head or')
    rerender('city:selkirk')
    expect([handedOn, result.current.typed]).toEqual([['lev', 'level:', 'level:head', 'level:head or'], 'city:selkirk'])
  })
})

/** @jest-environment <rootDir>/apps/web/test/components/browser.mjs */
import { describe, expect, it } from '@jest/globals'
import { act, renderHook } from '@testing-library/react'
import { useBenchFiles } from '../../src/bring/useBenchFiles'

const files = (...names: readonly string[]) => names.map((name) => new File(['x'], name))
const bench = (...names: readonly string[]) => {
  const { result } = renderHook(() => useBenchFiles())
  if (names.length > 0) act(() => result.current.add(files(...names)))
  const idOf = (name: string) => result.current.items.find(({ file }) => file.name === name)?.id ?? -1
  return {
    result,
    idOf,
    names: () => result.current.items.map(({ file }) => file.name),
    shown: () => result.current.items.find(({ id }) => id === result.current.shown)?.file.name ?? null,
  }
}

describe('the files on the bench', () => {
  it('are shown as they come, and the first of the rest where the shown one goes', () => {
    const { result, idOf, names, shown } = bench('a.csv', 'b.csv', 'c.csv')
    expect(shown()).toBe('a.csv')
    act(() => result.current.show(idOf('b.csv')))
    act(() => result.current.remove(idOf('b.csv')))
    expect([names(), shown()]).toEqual([['a.csv', 'c.csv'], 'a.csv'])
    act(() => result.current.remove(idOf('c.csv')))
    expect(shown()).toBe('a.csv')
    act(() => result.current.remove(idOf('a.csv')))
    expect([names(), shown()]).toEqual([[], null])
  })

  it('stay away where one that was being sent comes to its end behind them', () => {
    const { result, idOf, names, shown } = bench('sent.csv', 'aside.csv', 'left.csv')
    const sent = idOf('sent.csv')
    const whenSent = result.current.remove
    act(() => result.current.show(idOf('aside.csv')))
    act(() => result.current.remove(idOf('aside.csv')))
    act(() => result.current.add(files('later.csv')))
    act(() => whenSent(sent))
    expect([names(), shown()]).toEqual([['left.csv', 'later.csv'], 'later.csv'])
  })

  it('are never mistaken for one that was taken away', () => {
    const { result, idOf } = bench('a.csv', 'b.csv')
    const gone = idOf('b.csv')
    act(() => result.current.tell(gone, 'refused'))
    act(() => result.current.remove(gone))
    act(() => result.current.add(files('c.csv')))
    expect(idOf('c.csv')).not.toBe(gone)
    expect(result.current.states[idOf('c.csv')]).toBeUndefined()
  })
})

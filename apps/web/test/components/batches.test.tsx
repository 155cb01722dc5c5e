/** @jest-environment <rootDir>/apps/web/test/components/browser.mjs */
import { describe, expect, it } from '@jest/globals'
import { act, renderHook, screen, waitFor } from '@testing-library/react'
import type { Batch, BatchYield, Layout } from '@upper-field/contract'
import type { Field, OpenedTable } from '@upper-field/core/table'
import { Batches } from '../../src/bring/Batches'
import { CompareBatches } from '../../src/bring/CompareBatches'
import { useMapping } from '../../src/bring/useMapping'
import { Decisions } from '../../src/pair/Decisions'
import { batchOf } from './batches'
import { type Answers, OPERATOR, rendered } from './rendered'

describe('the batches of a list', () => {
  const shown = (batches: readonly Batch[]) => {
    const chosen: string[] = []
    return { chosen, ...rendered(<Batches batches={batches} chosen={null} onChoose={(id) => chosen.push(id)} />, {}) }
  }

  it.each<[Partial<Batch>, RegExp]>([
    [{}, /40.*An event.*25 % with a mobile$/],
    [{ rows: 0, withMobile: 0 }, /0 % with a mobile$/],
    [{ held: 2 }, /25 % with a mobile · 2 rows held$/],
    [{ state: 'reading' }, /being read$/],
    [{ state: 'failed', problem: 'disk-full', held: 1 }, /failed, not shown · 1 row held$/],
    [{ state: 'taken-back' }, /taken back$/],
  ])('%j says how it stands', (more, says) => {
    shown([batchOf(more)])
    expect(screen.getByRole('button').textContent).toMatch(says)
  })

  it('are chosen by a click, and laid side by side where there are several', async () => {
    const other = batchOf({ id: crypto.randomUUID(), name: 'Bought in May' })
    const { user, chosen } = shown([batchOf(), other])
    await user.click(screen.getByRole('button', { name: /Bought in May/ }))
    await user.click(screen.getByRole('button', { name: 'Side by side' }))
    expect(chosen).toEqual([other.id, 'compare'])
  })

  it('are missed with a word where there are none', () => {
    shown([])
    expect(screen.getByText('None yet.')).toBeTruthy()
    expect(screen.queryByRole('button')).toBeNull()
  })
})

describe('batches side by side', () => {
  const yieldOf = (batch: Batch, more: Partial<BatchYield> = {}): BatchYield => ({
    batchId: batch.id,
    contacts: 20,
    joined: 18,
    text: 5,
    call: 10,
    adsOnly: 4,
    parked: 1,
    outOfService: 0,
    withEmail: 13,
    spent: 0,
    ...more,
  })
  const bought = batchOf({ price: 40_000_000, held: 2 })
  const asked = batchOf({ id: crypto.randomUUID(), name: 'They wrote to us' })
  const shown = (yields: BatchYield[], chosen: string[] = []) =>
    rendered(<CompareBatches listId="l1" batches={[bought, asked]} onChoose={(id) => chosen.push(id)} />, {
      readYields: yields,
    })
  const cellsOf = async (name: string) => {
    const row = (await screen.findByRole('button', { name })).closest('tr')
    return [...(row?.querySelectorAll('td') ?? [])].slice(1).map(({ textContent }) => textContent)
  }

  it('tell rows, shares of contacts, and what a contact to text has cost', async () => {
    shown([yieldOf(bought, { spent: 5_000_000 }), yieldOf(asked)])
    expect(await cellsOf('Fair in Harrogate')).toEqual([
      '40',
      '2',
      '18',
      '20',
      '5 25 %',
      '10 50 %',
      '4 20 %',
      '1 5 %',
      '0 0 %',
      '13 65 %',
      '€9.00',
    ]) // prettier-ignore
    // What cost nothing has no price each.
    expect((await cellsOf('They wrote to us')).at(-1)).toBe('–')
  })

  it('tell no share of nobody, leave out what is not counted yet, and lead to each', async () => {
    const chosen: string[] = []
    const { user } = shown([yieldOf(bought, { contacts: 0, text: 0 })], chosen)
    expect((await cellsOf('Fair in Harrogate')).slice(4, 6)).toEqual(['0 –', '10 –'])
    expect(screen.queryByRole('button', { name: 'They wrote to us' })).toBeNull()
    await user.click(screen.getByRole('button', { name: 'Fair in Harrogate' }))
    expect(chosen).toEqual([bought.id])
  })
})

describe('useMapping', () => {
  const table = (fields: readonly (Field | null)[]) =>
    ({ suggestions: fields.map((field) => ({ field, reason: 'heading' })) }) as unknown as OpenedTable
  const suggested = table(['full-name', 'number', null])
  const mapped = (layout: Pick<Layout, 'mapping'> | null) =>
    renderHook(() => useMapping(suggested, layout as Layout | null))

  it('is what is suggested until somebody says otherwise, column by column', () => {
    const { result } = mapped(null)
    expect([result.current.mapping, result.current.isKnown]).toEqual([['full-name', 'number', null], false])
    act(() => result.current.assign(2, 'email'))
    expect(result.current.mapping).toEqual(['full-name', 'number', 'email'])
    expect([0, 1, 2].map(result.current.sourceOf)).toEqual(['suggested', 'suggested', 'set'])
    act(() => result.current.assign(2, null))
    expect([result.current.mapping, result.current.sourceOf(2)]).toEqual([['full-name', 'number', null], 'suggested'])
  })

  it('takes a field that stands once from the column that had it', () => {
    const { result } = mapped(null)
    act(() => result.current.assign(2, 'full-name'))
    expect(result.current.mapping).toEqual([null, 'number', 'full-name'])
    expect([0, 2].map(result.current.sourceOf)).toEqual(['set', 'set'])
    // Of numbers there may be several.
    act(() => result.current.assign(0, 'number'))
    expect(result.current.mapping).toEqual(['number', 'number', 'full-name'])
  })

  it('forgets what was said where the delimiter makes other columns of the file, not where headings move', () => {
    const { result, rerender } = renderHook(({ opened }) => useMapping(opened, null), {
      initialProps: { opened: table([null]) },
    })
    act(() => result.current.assign(0, 'email'))
    rerender({ opened: suggested })
    expect([result.current.mapping, result.current.sourceOf(0)]).toEqual([['full-name', 'number', null], 'suggested'])
    act(() => result.current.assign(2, 'email'))
    rerender({ opened: table(['company', 'number', null]) })
    expect([result.current.mapping, result.current.sourceOf(2)]).toEqual([['company', 'number', 'email'], 'set'])
  })

  it('begins as last time where files of this layout came before, and not where they were of another width', () => {
    const { result } = mapped({ mapping: ['company', 'number', null] })
    expect(result.current.mapping).toEqual(['company', 'number', null])
    expect([0, 2].map(result.current.sourceOf)).toEqual(['last-time', 'suggested'])
    expect(mapped({ mapping: ['company'] }).result.current.mapping).toEqual(['full-name', 'number', null])
  })
})

describe('what was decided of pairs last', () => {
  const at = '2026-11-28T09:00:00Z'
  const DECIDED = [
    { id: 12, decision: 'join' as const, pairs: 1, who: 'Maren Oldershaw', at },
    { id: 11, decision: 'apart' as const, pairs: 230, who: 'Tobias Fenwick', at },
  ]
  const shown = (more: Answers = {}, at = '') =>
    rendered(
      <Decisions listId="l1" />,
      { readDecided: DECIDED, readMe: OPERATOR, takeDecisionBack: DECIDED[0] as (typeof DECIDED)[0], ...more },
      at,
    )
  const takenBack = (sent: readonly { name: string }[]) => sent.filter(({ name }) => name === 'takeDecisionBack').length

  it('is told with who and when, each with a way back', async () => {
    const { user, sent } = shown()
    expect((await screen.findByText(/230 pairs kept apart/)).textContent).toContain('Tobias Fenwick')
    const buttons = screen.getAllByRole('button', { name: 'Take back' })
    expect(buttons).toHaveLength(2)
    await user.click(buttons[1] as HTMLElement)
    expect(takenBack(sent)).toBe(1)
  })

  it('is taken back by z, but not while a contact is being looked at', async () => {
    const free = shown()
    await screen.findByText('1 pair joined')
    await free.user.keyboard('z')
    expect(takenBack(free.sent)).toBe(1)
    free.unmount()
    const looking = shown({}, 'contact=5')
    await screen.findByText('1 pair joined')
    await looking.user.keyboard('z')
    expect(takenBack(looking.sent)).toBe(0)
  })

  it('stays for a viewer, who takes nothing back', async () => {
    const { user, sent } = shown({ readMe: { ...OPERATOR, role: 'viewer' } })
    const [button] = await screen.findAllByRole<HTMLButtonElement>('button', { name: 'Take back' })
    await waitFor(() => expect(button?.disabled).toBe(true))
    await user.keyboard('z')
    expect(takenBack(sent)).toBe(0)
  })
})

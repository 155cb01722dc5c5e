/** @jest-environment <rootDir>/apps/web/test/components/browser.mjs */
import { describe, expect, it } from '@jest/globals'
import { screen, waitFor } from '@testing-library/react'
import type { Act, HandItem, Job } from '@upper-field/contract'
import { HandQueue } from '../../src/tidy/HandQueue'
import { jobOf } from './jobs'
import { OPERATOR, rendered } from './rendered'

const itemOf = (contactId: number, raw: string): HandItem => ({
  contactId,
  batch: 'Fair badges',
  row: contactId,
  who: 'Isla Fenwright',
  country: 'GB',
  column: 'full-name',
  isNumber: false,
  raw,
  problem: 'two-people',
  fixes: [
    { kind: 'person', text: `${raw} the first` },
    { kind: 'person', text: `${raw} the second` },
  ],
})

const EDITED: Act = {
  id: '6f1c2a9e-7d1b-4f0e-9a53-0b6a5f7a2c11',
  kind: 'edit',
  contacts: 1,
  detail: '2 values',
  madeBy: OPERATOR.name,
  madeAt: '2026-11-01T09:00:00.000Z',
  undoneAt: null,
}

/** A cell with a slip that is mended alike wherever it stands. */
const SLIP: HandItem = {
  ...itemOf(4, 'maren@psotbox.example'),
  column: 'email',
  problem: 'slip-in-domain',
  fixes: [{ kind: 'domain', text: 'maren@postbox.example' }],
}

/** An address that a space parts. */
const PARTED: HandItem = {
  ...SLIP,
  raw: 'maren ash@postbox.example',
  problem: 'no-address',
  fixes: [
    { kind: 'parts-joined', text: 'maren.ash@postbox.example' },
    { kind: 'part', text: 'ash@postbox.example' },
  ],
}

const THREE = [itemOf(1, 'Ann'), itemOf(2, 'Bea'), itemOf(3, 'Cal')]

/** A queue, of three cells in which two people stand; the worker that reads numbers is started, and asked nothing. */
function shown({ jobs = [], cells = THREE }: { jobs?: Job[]; cells?: readonly HandItem[] } = {}) {
  let begun = 0
  globalThis.Worker = class {
    constructor() {
      begun++
    }
    addEventListener() {}
    postMessage() {}
    terminate() {}
  } as unknown as typeof Worker
  let items = [...cells]
  const view = rendered(<HandQueue />, {
    readMe: OPERATOR,
    readJobs: jobs,
    fixAlike: { cells: 40 },
    readHand: () => ({ items, next: null, total: items.length }),
    makeEdits: () => {
      items = items.slice(1)
      return EDITED
    },
  })
  const field = () => screen.findByRole<HTMLInputElement>('textbox', { name: 'Full name as it should be' })
  const until = (raw: string) => waitFor(async () => expect((await field()).value).toBe(raw))
  return { ...view, field, until, begun: () => begun }
}

describe('the queue of cells that need a hand', () => {
  it('is worked through by keys alone: the next cell is typed into at once', async () => {
    const { user, field, until, sent } = shown()
    await user.click(await field())
    await user.keyboard('{ArrowDown}{ArrowDown}{Enter}')
    await until('Bea')
    expect(document.activeElement).toBe(await field())
    await user.keyboard('{Escape}')
    await until('Cal')
    expect(document.activeElement).toBe(await field())
    expect(sent.find(({ name }) => name === 'makeEdits')?.body).toEqual({
      edits: [
        { contactId: 1, column: 'full-name', value: 'Ann the second' },
        { contactId: 1, column: 'Second person', value: 'Ann the first' },
      ],
    })
  })

  it('leaves the keys to the view where it is worked through with the mouse', async () => {
    const { user, field, until } = shown()
    await field()
    await user.click(screen.getByRole('button', { name: /^Later/ }))
    await until('Bea')
    expect(document.activeElement).not.toBe(await field())
  })

  it('asks one worker about all of them', async () => {
    const { user, field, until, begun } = shown()
    await field()
    await user.click(screen.getByRole('button', { name: /^Later/ }))
    await until('Bea')
    expect(begun()).toBe(1)
  })

  it('mends the same slip wherever it stands, unless the list is being tidied', async () => {
    const mendAll = () => screen.findByRole('button', { name: 'Mend all 40 by their nearest reading' })
    const free = shown({ cells: [SLIP] })
    await free.user.click(await mendAll())
    const mended = () => free.sent.filter(({ name, body }) => name === 'fixAlike' && (body as { apply: boolean }).apply)
    await waitFor(() => expect(mended()).toHaveLength(1))
    free.unmount()
    shown({ cells: [SLIP], jobs: [jobOf({ kind: 'tidy', state: 'running', unit: 'contacts' })] })
    await waitFor(async () => expect(await mendAll()).toHaveProperty('disabled', true))
  })

  it('asks of each cell by itself what cannot be told alike, and says what each choice is', async () => {
    shown({ cells: [PARTED] })
    expect(await screen.findByText('both parts together')).toBeDefined()
    expect(screen.getByText('the last part alone')).toBeDefined()
    expect(screen.queryByRole('button', { name: /^Mend all/ })).toBeNull()
  })

  it.each([
    ['an address', {}, 'Nothing is near to it: it can only be typed.'],
    ['a number', { column: 'number', isNumber: true }, 'Nothing near to it is in the plan: it can only be typed.'],
  ])('says of %s to which nothing is near that it has to be typed', async (_, more, says) => {
    shown({ cells: [{ ...SLIP, fixes: [], ...more }] })
    expect(await screen.findByText(says)).toBeDefined()
  })
})

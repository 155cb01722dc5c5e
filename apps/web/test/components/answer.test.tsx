/** @jest-environment <rootDir>/apps/web/test/components/browser.mjs */
import { describe, expect, it } from '@jest/globals'
import { render, screen } from '@testing-library/react'
import fc from 'fast-check'
import { Answer, together } from '../../src/shell/Answer'

const REFUSED = { detail: 'The database is being started.' }
const shown = (of: { data?: readonly string[]; error?: unknown }) =>
  render(
    <Answer of={of} what="the lists" none={<p>No list yet.</p>}>
      {(names) => <p>{names.join(', ')}</p>}
    </Answer>,
  )

describe('what was asked for', () => {
  it('is being read until it is there', () => {
    const { container } = shown({})
    expect(screen.getByRole('status').textContent).toBe('Reading the lists …')
    expect(container.textContent).not.toContain('No list')
  })

  it('cannot be read, and then is not said to be nothing', () => {
    const { container } = shown({ error: REFUSED })
    expect(screen.getByRole('alert').textContent).toBe(REFUSED.detail)
    expect(container.textContent).toBe(REFUSED.detail)
  })

  it('is nothing where nothing is known to be there', () => {
    const { container } = shown({ data: [] })
    expect(container.textContent).toBe('No list yet.')
  })

  it('stays in sight where it cannot be read anew', () => {
    const { container } = shown({ data: ['Terraces', 'Fairs'], error: REFUSED })
    expect(screen.getByRole('alert').textContent).toBe(REFUSED.detail)
    expect(container.textContent).toContain('Terraces, Fairs')
  })

  it('may be an empty list that is shown like any other, where nothing is said of that', () => {
    const { container } = render(
      <Answer of={{ data: [] as string[] }} what="the lists">
        {(names) => <p>{names.length} lists</p>}
      </Answer>,
    )
    expect(container.textContent).toBe('0 lists')
  })
})

describe('several that are asked for together', () => {
  const query = fc.record(
    {
      data: fc.option(fc.string(), { nil: undefined }),
      error: fc.option(fc.string({ minLength: 1 }), { nil: undefined }),
    },
    { requiredKeys: ['data', 'error'] },
  )

  it('are there once each is, and refused with what one of them was refused with', () => {
    fc.assert(
      fc.property(
        fc.dictionary(fc.string({ minLength: 1 }), query, { minKeys: 1, noNullPrototype: true }),
        (queries) => {
          const all = Object.entries(queries)
          const { data, error } = together<Record<string, string>>(queries)
          const isThere = all.every(([, one]) => one.data !== undefined)
          expect(data !== undefined).toBe(isThere)
          if (data) for (const [name, one] of all) expect(data[name]).toBe(one.data)
          const refusals = all.flatMap(([, one]) => (one.error === undefined ? [] : [one.error]))
          if (refusals.length === 0) expect(error).toBeUndefined()
          else expect(refusals).toContain(error)
        },
      ),
    )
  })
})

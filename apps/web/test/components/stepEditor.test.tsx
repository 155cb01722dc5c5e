/** @jest-environment <rootDir>/apps/web/test/components/browser.mjs */
import { describe, expect, it } from '@jest/globals'
import { render, screen } from '@testing-library/react'
import { userEvent } from '@testing-library/user-event'
import type { TidyState } from '@upper-field/contract'
import { BLANK_WORDS, newStep, STEP_KINDS, type Step, type StepKind } from '@upper-field/core/tidy'
import { useState } from 'react'
import { StepEditor } from '../../src/tidy/StepEditor'
import { STEP } from '../../src/words/tidying'

const COLUMNS: TidyState['columns'] = [
  { name: 'full-name', field: 'full-name' },
  { name: 'Seats', field: null },
  { name: 'Stand', field: null },
]

/** The editor as its view keeps it: what is changed is what it shows next. */
function edited(step: Step) {
  const steps: Step[] = []
  let removed = 0
  const Kept = () => {
    const [now, setNow] = useState(step)
    return (
      <StepEditor
        step={now}
        columns={COLUMNS}
        onChange={(next) => {
          steps.push(next)
          setNow(next)
        }}
        onRemove={() => {
          removed++
        }}
      />
    )
  }
  render(<Kept />)
  return { user: userEvent.setup(), last: () => steps.at(-1), removed: () => removed }
}
const stepOf = <K extends StepKind>(kind: K, options: Partial<Extract<Step, { kind: K }>['options']> = {}) => {
  const step = newStep(kind, kind) as Extract<Step, { kind: K }>
  return { ...step, options: { ...step.options, ...options } } as Step
}

describe('the open step', () => {
  it.each(STEP_KINDS)('%s is named, switched off and on, and taken out', async (kind) => {
    const { user, last, removed } = edited(stepOf(kind))
    expect(screen.getByRole('heading', { name: STEP[kind].title })).toBeTruthy()
    await user.click(screen.getByRole('checkbox', { name: 'Switched on' }))
    expect(last()).toEqual({ ...stepOf(kind), isOn: false })
    await user.click(screen.getByRole('checkbox', { name: 'Switched on' }))
    expect(last()).toEqual(stepOf(kind))
    await user.click(screen.getByRole('button', { name: 'Take this step out' }))
    expect(removed()).toBe(1)
  })

  it.each<[StepKind, string, string]>([
    ['names', 'Split full names into given and family name', 'split'],
    ['names', 'Mend capitals', 'mendsCase'],
    ['names', 'Take out titles and letters behind names', 'takesTitles'],
    ['names', 'Take out pictures and ornaments', 'takesDecorations'],
    ['company', 'Take the legal form off', 'takesLegalForm'],
    ['company', 'Mend capitals', 'mendsCase'],
  ])('of %s: "%s" changes that alone', async (kind, label, option) => {
    const { user, last } = edited(stepOf(kind))
    await user.click(screen.getByRole('checkbox', { name: label }))
    const { options } = stepOf(kind)
    expect(last()?.options).toEqual({ ...options, [option]: false })
  })

  it('of blanks takes words a line each, without empty ones, and knows the usual', async () => {
    const { user, last } = edited(stepOf('blanks', { words: ['n/a'] }))
    const words = screen.getByRole<HTMLTextAreaElement>('textbox', { name: 'Words, one a line' })
    await user.type(words, '{Enter} keine {Enter}{Enter}')
    expect(last()?.options).toEqual({ words: ['n/a', 'keine'] })
    // What is being typed stays as it is typed.
    expect(words.value).toBe('n/a\n keine \n\n')
    await user.click(screen.getByRole('button', { name: 'The usual words' }))
    expect(last()?.options).toEqual({ words: [...BLANK_WORDS] })
  })

  it('of dates and replacing names its columns, one that is gone too', async () => {
    const { user, last } = edited(stepOf('dates', { columns: ['Seats', 'Was here'] }))
    const gone = screen.getByRole<HTMLInputElement>('checkbox', { name: 'Was here (gone)' })
    expect(gone.checked).toBe(true)
    await user.click(screen.getByRole('checkbox', { name: 'Stand' }))
    await user.click(gone)
    await user.selectOptions(screen.getByRole('combobox'), 'month-first')
    expect(last()?.options).toEqual({ columns: ['Seats', 'Stand'], order: 'month-first' })
  })

  it('of replacing says what stands for what was found', async () => {
    const { user, last } = edited(stepOf('replace'))
    expect(screen.getByText('Left blank, it is taken out.')).toBeTruthy()
    await user.click(screen.getByRole('checkbox', { name: /regular expression/ }))
    expect(screen.getByText(/\$1 puts in what the first brackets found/)).toBeTruthy()
    await user.type(screen.getByRole('textbox', { name: 'Find' }), '(a)b')
    await user.type(screen.getByRole('textbox', { name: /^Put in its place/ }), '$1')
    await user.click(screen.getByRole('checkbox', { name: 'Mind capitals' }))
    expect(last()?.options).toEqual({ columns: [], find: '(a)b', with: '$1', isPattern: true, minds: 'case' })
  })

  it('of deriving takes a name and a template', async () => {
    const { user, last } = edited(stepOf('derive'))
    await user.type(screen.getByRole('textbox', { name: 'Name of the new column' }), 'Greeting')
    await user.type(screen.getByRole('textbox', { name: 'Template' }), 'Dear {{{{ full_name }}')
    expect(last()?.options).toEqual({ column: 'Greeting', template: 'Dear {{ full_name }}' })
  })

  it('of columns hides and renames those that became no field', async () => {
    const { user, last } = edited(stepOf('columns'))
    expect(screen.queryByRole('checkbox', { name: 'Keep full-name' })).toBeNull()
    await user.click(screen.getByRole('checkbox', { name: 'Keep Seats' }))
    const name = screen.getByRole('textbox', { name: 'Name for Stand' })
    await user.clear(name)
    await user.type(name, 'Booth')
    await user.tab()
    expect(last()?.options).toEqual({ hidden: ['Seats'], renamed: { Stand: 'Booth' }, order: [] })
    // Its own name, or none, is no new name.
    await user.clear(name)
    await user.tab()
    await user.click(screen.getByRole('checkbox', { name: 'Keep Seats' }))
    expect(last()?.options).toEqual({ hidden: [], renamed: {}, order: [] })
  })
})

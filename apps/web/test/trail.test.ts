import { describe, expect, it } from '@jest/globals'
import type { TrailLine } from '@upper-field/contract'
import { ATTEMPT_STATES } from '@upper-field/core/fill'
import { createElement } from 'react'
import { renderToStaticMarkup } from 'react-dom/server'
import { Provider, type ProviderProps } from 'react-redux'
import { Ledges } from '../src/fill/Ledges'
import { outcomeText, STEP_WORD } from '../src/fill/trailText'
import { store } from '../src/store'

const line = (more: Partial<TrailLine>): TrailLine => ({
  contactId: 1,
  fullName: 'Maren Oldershaw',
  country: 'GB',
  state: 'not-found',
  steps: [],
  taken: [],
  cost: 0,
  ...more,
})
const step = (provider: string, state: (typeof ATTEMPT_STATES)[number]) => ({
  provider,
  state,
  reason: null,
  aside: [],
})

describe('what came of a search', () => {
  it('is what was wanted and taken, as it is written for people', () => {
    const taken = [
      { value: '+447911204481', foundAs: 'mobile' as const },
      { value: 'maren@causeway.example', foundAs: 'work-email' as const },
    ]
    expect(outcomeText(line({ state: 'found', taken }))).toBe('+44 7911 204481, maren@causeway.example')
  })
  it('is what was kept besides, where nothing wanted was taken', () => {
    const taken = [{ value: '+441665555018', foundAs: 'office' as const }]
    expect(outcomeText(line({ taken }))).toBe('number of the office: +44 1665 555018')
  })
  it.each<[TrailLine['state'], string]>([
    ['open', 'asked next'],
    ['waiting', 'waits for an answer'],
    ['budget', 'left by the budget'],
    ['left-out', 'left out: suppressed meanwhile'],
  ])('%s: %s', (state, text) => expect(outcomeText(line({ state }))).toBe(text))
  it('tells who knows nothing from who could not be asked', () => {
    expect(outcomeText(line({ steps: [step('candle', 'nothing')] }))).toBe('nobody knows')
    expect(outcomeText(line({ steps: [step('candle', 'set-aside'), step('lantern', 'nothing')] }))).toBe(
      'found, none of use',
    )
    expect(outcomeText(line({}))).toBe('nobody could be asked')
  })
})

describe('the ledges of a course', () => {
  it('stand in the order in which providers were asked, and say in words how each ended', () => {
    const steps = ATTEMPT_STATES.map((state) => step(`of-${state}`, state))
    const markup = renderToStaticMarkup(
      createElement(Provider, { store } as ProviderProps, createElement(Ledges, { steps })),
    )
    const words = [...markup.matchAll(/of-([a-z-]+)<span class="sr-only">: ([^<]+)</g)].map(([, state, word]) => [
      state,
      word,
    ])
    expect(words).toEqual(ATTEMPT_STATES.map((state) => [state, STEP_WORD[state]]))
  })
})

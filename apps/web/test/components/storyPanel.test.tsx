/** @jest-environment <rootDir>/apps/web/test/components/browser.mjs */
import { describe, expect, it } from '@jest/globals'
import { screen, waitFor, within } from '@testing-library/react'
import type { ContactStory } from '@upper-field/contract'
import { StoryPanel } from '../../src/shell/StoryPanel'
import { contactOf, storyOf } from './contacts'
import { type Answers, OPERATOR, Refusal, rendered } from './rendered'

const AT = '2026-11-28T09:00:00Z'
const ACT = '4f1c2a9e-7d1b-4f0e-9a53-0b6a5f7a2c11'
const BATCH = 'Spring fair.csv'
const BUSY = () => new Refusal(409, 'list-busy', 'Maren Oldershaw is tidying this list.')
const EDITED: ContactStory['story'][number] = {
  at: AT,
  what: { kind: 'edited', actId: ACT, column: 'city', value: 'Kelso', by: 'Maren Oldershaw' },
}
const JOINED: ContactStory['story'][number] = {
  at: AT,
  what: {
    kind: 'joined',
    joinId: 9,
    otherRow: 44,
    otherBatch: BATCH,
    otherName: 'I. Fenwright',
    by: 'number',
    key: '+447400123456',
    isSurvivor: true,
  },
}
const shown = (story: ContactStory | (() => Refusal), more: Answers = {}) =>
  rendered(<StoryPanel contactId={71} />, {
    readMe: OPERATOR,
    readStory: story,
    readConnections: [],
    readDestinations: [],
    readLaneRules: { isOwn: false, rules: [] },
    readSuppressionLists: [],
    ...more,
  })

describe('the story of a contact', () => {
  it('tells who it is, how to reach them, and whether they may be called now', async () => {
    shown(storyOf())
    const story = within(await screen.findByRole('region', { name: 'Story of Isla Fenwright' }))
    expect(story.getByText('Head of purchasing · Fenwright Drystone · Kelso · GB')).toBeTruthy()
    expect(story.getByText(/^mobile by the numbering plan$/)).toBeTruthy()
    expect(story.getByText(/best to text and to call · 10:30 there/)).toBeTruthy()
    expect(story.getByText(/isla@fenwright\.example/)).toBeTruthy()
  })

  it('says that nothing can be read of somebody with neither number nor address', async () => {
    shown(
      storyOf({
        contact: contactOf({ fullName: '', company: '', title: '', city: '', country: '' }),
        numbers: [],
        emails: [],
      }),
    )
    expect(await screen.findByText('No number and no e-mail that can be read.')).toBeTruthy()
    expect(screen.getByText('Nothing else is known.')).toBeTruthy()
  })

  it('tells why somebody must not be contacted, and by which key', async () => {
    shown(
      storyOf({
        suppressedBy: [
          { list: 'Opt-outs', scope: 'all', reason: 'asked by mail', key: '+447400123456', addedAt: AT },
          { list: 'Customers', scope: 'ads', reason: '', key: null, addedAt: AT },
        ],
      }),
    )
    expect(await screen.findByText(/Opt-outs.* by \+44 7400 123456: asked by mail$/)).toBeTruthy()
    expect(screen.getByText(/Customers.*, kept as a hash$/)).toBeTruthy()
  })

  it('takes back what a person has changed, and takes apart what was joined', async () => {
    const { user, sent } = shown(storyOf({ story: [EDITED, JOINED] }), { takeActBack: BUSY, takeApart: BUSY })
    await user.click(await screen.findByRole('button', { name: 'Take back' }))
    await user.click(screen.getByRole('button', { name: 'Take apart' }))
    expect(sent.filter(({ name }) => /^take/.test(name)).map(({ name }) => name)).toEqual(['takeActBack', 'takeApart'])
  })

  it.each<['Take back' | 'Take apart', Answers]>([
    ['Take back', { takeActBack: BUSY }],
    ['Take apart', { takeApart: BUSY }],
  ])('says who is at work where “%s” is refused, and stays as it was', async (name, answers) => {
    const { user } = shown(storyOf({ story: [EDITED, JOINED] }), answers)
    await user.click(await screen.findByRole('button', { name }))
    expect((await screen.findByRole('alert')).textContent).toBe('Maren Oldershaw is tidying this list.')
    expect(screen.getByRole('button', { name })).toBeTruthy()
  })

  it('takes apart once, however often the key is pressed meanwhile', async () => {
    const { user, sent } = shown(storyOf({ story: [JOINED] }), { takeApart: () => new Promise(() => {}) })
    await screen.findByRole('button', { name: 'Take apart' })
    await user.keyboard('zzz')
    expect(sent.filter(({ name }) => name === 'takeApart')).toHaveLength(1)
  })

  it('lets a viewer read, and take nothing back', async () => {
    shown(storyOf({ story: [EDITED, JOINED] }), { readMe: { ...OPERATOR, role: 'viewer' } })
    await screen.findByRole('region', { name: 'Story of Isla Fenwright' })
    expect(screen.queryByRole('button', { name: /^Take/ })).toBeNull()
  })

  it('stays in sight where it cannot be read anew, and goes where the contact has gone', async () => {
    let answer: ContactStory | Refusal = storyOf({ story: [JOINED] })
    const { user, sent } = rendered(<StoryPanel contactId={71} />, {
      readMe: OPERATOR,
      readStory: () => answer,
      readConnections: [],
      readDestinations: [],
      readLaneRules: { isOwn: false, rules: [] },
      readSuppressionLists: [],
      takeApart: {},
    })
    const takeApart = async () => user.click(await screen.findByRole('button', { name: 'Take apart' }))
    await screen.findByRole('button', { name: 'Take apart' })
    answer = new Refusal(503, 'busy', 'The database is being started.')
    await takeApart()
    await waitFor(() => expect(sent.filter(({ name }) => name === 'readStory')).toHaveLength(2))
    expect(screen.getByRole('region', { name: 'Story of Isla Fenwright' })).toBeTruthy()
    answer = new Refusal(404, 'not-found', 'There is no such contact.')
    await takeApart()
    expect((await screen.findByRole('alert')).textContent).toBe('There is no such contact.')
    expect(screen.queryByText(/Fenwright/)).toBeNull()
  })

  it('says why it cannot be read', async () => {
    shown(() => new Refusal(404, 'not-found', 'There is no such contact.'))
    expect((await screen.findByRole('alert')).textContent).toBe('There is no such contact.')
  })
})

import type { Job, Todo } from '@upper-field/contract'
import { count, date, minutes, money, percent, plural } from '../words/format'
import { jobTitle } from '../words/jobs'

export interface TodoText {
  /** What it is. */
  readonly title: string
  /** Where, and since when. */
  readonly about: string
  /** The act that leads there. */
  readonly act: string
  readonly to: string
}

/** Seconds that a person takes for one cell, and for one pair. */
const PER_CELL = 4
const PER_PAIR = 3

/** One thing that wants doing, in words, with the way to it. */
export function todoText(todo: Todo): TodoText {
  const { kind, listId, listName, name, destination, n, more, at, says } = todo
  const list = `/lists/${listId}`
  const audience = `${list}/send?audience=${todo.audienceId}`
  const where = `${name} at ${destination}`
  switch (kind) {
    case 'removals-overdue':
    case 'removals':
      return {
        title: `${count(n)} said no and ${n === 1 ? 'is' : 'are'} still in an audience`,
        about: `${where}${at ? ` · since ${date(at)}` : ''}`,
        act: 'Deliver the removal',
        to: audience,
      }
    case 'refused':
      return { title: 'An upload was refused', about: `${where}: ${says}`, act: 'See what to do', to: audience }
    case 'lapsed':
      return {
        title: 'Membership has lapsed',
        about: `${where} · ${plural(n, 'person', 'people')}`,
        act: 'Send it anew',
        to: audience,
      }
    case 'lapses':
      return {
        title: `Membership lapses ${at ? date(at) : 'soon'}`,
        about: `${where} · ${plural(n, 'person', 'people')}`,
        act: 'Refresh',
        to: audience,
      }
    case 'refresh-due':
      return { title: 'An audience is due', about: where, act: `Refresh · +${count(n)} −${count(more)}`, to: audience }
    case 'budget':
      return {
        title: `${percent(n / more)} of this month’s money is spent`,
        about: `${money(n)} of ${money(more)} · work that costs may stop`,
        act: 'Look at the spend',
        to: '/spend',
      }
    case 'job-stopped':
      return {
        title: `${jobTitle({ kind: name as Job['kind'], unit: 'contacts' })} stopped`,
        about: `${listName}${at ? ` · ${date(at)}` : ''}`,
        act: 'See why',
        to: `${list}/${STAGE_OF[name] ?? 'bring'}`,
      }
    case 'calls-promised':
      return {
        title: `${plural(n, 'call')} promised for now`,
        about: listName,
        act: 'Open the call sheet',
        to: `${list}/split?show=calls`,
      }
    case 'review':
      return {
        title: [n > 0 ? `${plural(n, 'cell')} to review` : '', more > 0 ? `${plural(more, 'pair')} to decide` : '']
          .filter(Boolean)
          .join(', '),
        about: listName,
        act: `Begin · about ${minutes(n * PER_CELL + more * PER_PAIR)}`,
        to: n > 0 ? `${list}/tidy?show=hand` : `${list}/pair`,
      }
    case 'batch-waits':
      return {
        title: 'A batch waits to be brought in',
        about: `${name}${n > 0 ? ` · ${plural(n, 'row')}` : ''} · ${listName}`,
        act: 'Look at it',
        to: `${list}/bring`,
      }
    case 'not-sent':
      return {
        title: `${plural(n, 'contact')} ready and not sent`,
        about: listName,
        act: 'Open Send',
        to: `${list}/send`,
      }
  }
}

/** Where a job of a kind is looked at. */
const STAGE_OF: Readonly<Record<string, string>> = {
  'bring-in': 'bring',
  harvest: 'bring/pages',
  'take-back': 'bring',
  'bring-back': 'bring',
  tidy: 'tidy',
  pair: 'pair',
  check: 'check',
  fill: 'fill',
  edition: 'send?show=files',
  prepare: 'send',
  deliver: 'send',
}

import type { Automation, AutomationRun, AutomationStart, AutomationStep } from '@upper-field/contract'
import { money } from '../words/format'

export const START_TEXT: Readonly<Record<AutomationStart, string>> = {
  'batch-ready': 'When a batch is ready',
  'contact-added': 'When a program has added a contact',
  day: 'When a day begins',
}
export const WORK_TEXT: Readonly<Record<AutomationStep['work'], string>> = {
  tidy: 'tidy by the routine',
  pair: 'look for who is one person',
  check: 'check numbers',
  fill: 'fill by the plan for new batches',
  split: 'decide the lanes',
  send: 'send an audience',
}
const OUTCOME: Readonly<Record<AutomationRun['done'][number]['outcome'], string>> = {
  done: 'done',
  'nothing-to-do': 'nothing to do',
  'over-amount': 'would cost more than it may',
  refused: 'refused',
  failed: 'failed',
}

/** When an automation begins. */
export const startText = ({ start, hour }: Pick<Automation, 'start' | 'hour'>): string =>
  start === 'day' ? `Every day at ${String(hour).padStart(2, '0')}:00 UTC` : START_TEXT[start]

/** What one step does, and for how much at most. */
export function stepText({ work, amount, audienceId }: AutomationStep, audiences: ReadonlyMap<string, string>): string {
  const what =
    work === 'send' && audienceId !== null ? `send “${audiences.get(audienceId) ?? 'an audience'}”` : WORK_TEXT[work]
  return amount > 0 ? `${what} for at most ${money(amount)}` : what
}

/** What became of one step. */
export function outcomeText({ outcome, reason, spent }: AutomationRun['done'][number]): string {
  const cost = spent > 0 ? `, ${money(spent)}` : ''
  return `${OUTCOME[outcome]}${cost}${reason === null ? '' : `: ${reason}`}`
}

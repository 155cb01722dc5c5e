import type { StoryFact } from '@upper-field/contract'
import { CANDIDATE, FOUND_AS } from './fill'
import { count, money, phone, plural, shortened } from './format'
import { PART } from './pairing'
import { ADDRESS, LANE_REASON, LINE, LINE_STATUS, laneText, OUTCOME, PROBLEM, REPAIR, VERDICT } from './sentences'
import { columnTitle, REPAIR_NAME } from './tidying'

/** Characters of a cell that are quoted. */
const LONGEST = 80

const ATTEMPT: Record<string, string> = {
  waiting: 'answer awaited',
  accepted: 'found',
  'set-aside': 'nothing usable',
  nothing: 'not found',
  failed: 'failed',
  late: 'no answer in time',
}

const status = (value: string): string => LINE_STATUS[value] ?? value

/**
 * One thing that happened to a contact: a heading and, where there is more, a sentence.
 * @param named the name of a service by its id
 */
export function tell(
  fact: StoryFact,
  named: (id: string) => string,
): { readonly title: string; readonly more: readonly string[] } {
  switch (fact.kind) {
    case 'brought-in':
      return { title: `Row ${count(fact.row)} of ${fact.batch}`, more: [] }
    case 'read':
      return { title: `${fact.column}: ${VERDICT[fact.reading.verdict]}`, more: readingSentences(fact) }
    case 'tidied':
      return {
        title: `${columnTitle(fact.column)}: ${REPAIR_NAME[fact.code].title.toLowerCase()}`,
        more: [
          `“${shortened(fact.was, LONGEST)}” became ${fact.is === '' ? 'blank' : `“${shortened(fact.is, LONGEST)}”`}.`,
        ],
      }
    case 'edited':
      return {
        title: `${columnTitle(fact.column)} edited by ${fact.by}`,
        more: [fact.value === '' ? 'Set to blank.' : `Set to “${shortened(fact.value, LONGEST)}”.`],
      }
    case 'left-out':
      return {
        title: `${REPAIR_NAME[fact.code].title} left out by ${fact.by}`,
        more: ['The value stays as it stood.'],
      }
    case 'taken-back':
      return { title: `Taken back by ${fact.by}`, more: [] }
    case 'joined':
      return {
        title: fact.isSurvivor
          ? `Joined with row ${count(fact.otherRow)} of ${fact.otherBatch}`
          : `Joined into row ${count(fact.otherRow)} of ${fact.otherBatch}`,
        more: [joinReason(fact)],
      }
    case 'joined-more':
      return {
        title: `Joined with ${plural(fact.rows, 'more row', 'more rows')}`,
        more: ['The latest are told one by one.'],
      }
    case 'value-chosen':
      return {
        title: `${PART[fact.part]} chosen by ${fact.by}`,
        more: [
          `It is taken from row ${count(fact.row)} of ${fact.batch}; what that row leaves blank, from the others.`,
        ],
      }
    case 'taken-apart':
      return {
        title: `Taken apart from row ${count(fact.otherRow)} of ${fact.otherBatch}`,
        more: ['They will not be joined again.'],
      }
    case 'shared-line':
      return {
        title: 'A shared line',
        more: [`${phone(fact.e164)} is held by ${count(fact.holders)} people of this list.`],
      }
    case 'checked':
      return fact.status === 'unknown' && fact.lineType === 'unknown'
        ? { title: 'Line asked for', more: [`${phone(fact.e164)}: the register does not know it. Free.`] }
        : {
            title: 'Line checked by the register',
            more: [
              `${phone(fact.e164)}: ${(LINE[fact.lineType] ?? '').toLowerCase()}, ${status(fact.status)}${fact.carrier ? `, ${fact.carrier}` : ''} · ${fact.cost > 0 ? money(fact.cost) : 'paid elsewhere'}`,
            ],
          }
    case 'asked-register':
      return {
        title: 'Asked of do-not-call registers',
        more: [`${phone(fact.e164)}: ${listedText(fact)} · ${fact.cost > 0 ? money(fact.cost) : 'free here'}`],
      }
    case 'verified':
      return {
        title: 'Address checked by the verifier',
        more: [`${fact.address}: ${ADDRESS[fact.deliverability]} · ${fact.cost > 0 ? money(fact.cost) : 'free here'}`],
      }
    case 'asked':
      return {
        title: `${named(fact.provider)} asked: ${ATTEMPT[fact.state] ?? fact.state}`,
        more: [
          ...fact.candidates.map(
            ({ value, outcome }) => `${value ? valueText(value) : 'A value'}: ${CANDIDATE[outcome] ?? outcome}.`,
          ),
          `Cost ${money(fact.cost)}.`,
        ],
      }
    case 'filled':
      return { title: `${FOUND_AS[fact.foundAs]} found by ${named(fact.provider)}`, more: [valueText(fact.value)] }
    case 'company-told':
      return {
        title: `Company told by ${named(fact.provider)}`,
        more: [
          [fact.industry, fact.headcount === null ? '' : `${count(fact.headcount)} people`, fact.site, fact.page]
            .filter(Boolean)
            .join(' · '),
        ],
      }
    case 'called':
      return { title: `Called: ${OUTCOME[fact.outcome].toLowerCase()}`, more: [`${phone(fact.e164)}, by ${fact.by}.`] }
    case 'placed':
      return { title: `Now in ${laneText(fact.lane)}`, more: [`Because: ${LANE_REASON[fact.reason]}.`] }
    case 'forgotten':
      return {
        title: `Forgotten, by ${fact.by}`,
        more: ['The person asked for it. Only the place of the row is left.'],
      }
    case 'sent':
      return {
        title: fact.destination === 'people' ? 'Written into a file' : `Prepared for ${named(fact.destination)}`,
        more: [fact.fileName],
      }
  }
}

/** A number as it is written for people, or an address. */
export const valueText = (value: string): string => (value.startsWith('+') ? phone(value) : value)

function readingSentences({ raw, reading }: Extract<StoryFact, { kind: 'read' }>): string[] {
  const numbers = reading.numbers.map((number) => {
    const extension = number.extension ? `, extension ${number.extension}` : ''
    return `${phone(number.e164)}${extension}: ${number.valid ? `${(LINE[number.lineType] ?? '').toLowerCase()} by the numbering plan` : 'not valid'}`
  })
  return [
    `“${shortened(raw.trim(), LONGEST)}”`,
    ...reading.repairs.map((repair) => REPAIR[repair]),
    ...(reading.problem ? [PROBLEM[reading.problem]] : []),
    ...(reading.remark ? [`Beside it stood “${shortened(reading.remark, LONGEST)}”.`] : []),
    ...numbers,
  ]
}

function joinReason({ by, key, otherName }: Extract<StoryFact, { kind: 'joined' }>): string {
  const name = otherName ? ` “${otherName}”` : ''
  if (by === 'person') return `${key} said that they are one person${name ? `: ${name.trim()}` : ''}.`
  if (by === 'likeness')
    return `They agree in so much that they are one person: ${key} bits for it${name && `,${name}`}.`
  return `Same ${by === 'number' ? `number ${phone(key)}` : `e-mail ${key}`}, compatible name${name}.`
}

function listedText({ isListed, register }: { isListed: boolean | null; register: string | null }): string {
  if (isListed === null) return 'nobody could tell'
  const name = register ?? 'a register'
  return isListed ? `on ${name}, not to be called` : `not on ${name}`
}

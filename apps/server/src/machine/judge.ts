import type { CheckSettings, Judgement } from '@upper-field/contract'
import { describeLine } from '@upper-field/core/check'
import { type ReadNumber, timeZonesOf } from '@upper-field/core/phone'
import { isClosed, type Scope } from '@upper-field/core/split'
import { callStateOf } from '../check/callPlaces'
import type { Services } from '../services'
import { type Asker, askRegister } from './askRegister'
import { keysOf, knownOf, readValue } from './knownValues'
import { settingsNow } from './settingsNow'

interface Asked {
  readonly values: readonly string[]
  readonly country: string | null
  readonly ask: boolean
}

/**
 * Tells of each value what it is and what is known of it: line, status, suppression, lists, whether it may be texted and
 * called now. The register is asked only where that was wanted, and the key may pay.
 */
export async function judge(
  services: Services,
  { values, country, ask }: Asked,
  asker: Asker,
): Promise<{ readonly judgements: Judgement[]; readonly cost: number }> {
  const read = values.map((value) => readValue(value, country))
  const notAsked = new Map<string, NonNullable<Judgement['notAsked']>>()
  const costs = ask ? await askRegister(services, read, asker, notAsked) : new Map<string, number>()
  const known = await knownOf(services, read)
  const settings = await settingsNow(services)
  const judgements = read.map((one, at): Judgement => {
    const value = values[at] ?? ''
    if (one.kind === 'unreadable') return { ...NOTHING, value, verdict: one.verdict, problem: one.problem }
    const subject = one.kind === 'number' ? one.number.e164 : one.email.address
    const suppressedFor = known.suppressedFor(keysOf(one))
    const told = {
      ...NOTHING,
      value,
      normal: subject,
      suppressedFor: [...suppressedFor],
      inLists: known.holders(subject),
    }
    if (one.kind === 'email') {
      const facts = known.address(subject)
      return {
        ...told,
        kind: 'email',
        verdict: 'clean',
        emailKind: one.email.kind,
        addressState: facts?.state ?? 'not-checked',
        checkedAt: facts?.checkedAt ?? null,
      }
    }
    const { number, verdict } = one
    const line = describeLine(number, known.line(subject))
    const isMobile = line.lineType === 'mobile' || line.lineType === 'fixed-or-mobile'
    const isDead = line.status === 'out-of-service'
    return {
      ...told,
      kind: 'number',
      verdict,
      country: number.country,
      lineType: line.lineType,
      lineStatus: line.status,
      knownFrom: line.knownFrom,
      checkedAt: known.line(subject)?.at ?? null,
      mayBeTexted: number.valid && isMobile && !isDead && !isClosed(suppressedFor, 'texts'),
      call: callOf(number, isDead, suppressedFor, settings, services.now()),
      cost: costs.get(subject) ?? 0,
      notAsked: ask ? (notAsked.get(subject) ?? null) : null,
    }
  })
  return { judgements, cost: [...costs.values()].reduce((sum, one) => sum + one, 0) }
}

const NOTHING: Omit<Judgement, 'value'> = {
  kind: 'unreadable',
  verdict: 'unreadable',
  problem: null,
  normal: null,
  country: null,
  lineType: null,
  lineStatus: null,
  knownFrom: null,
  emailKind: null,
  addressState: null,
  checkedAt: null,
  suppressedFor: [],
  inLists: [],
  mayBeTexted: false,
  call: null,
  cost: 0,
  notAsked: null,
}

function callOf(
  { e164, country, valid }: ReadNumber,
  isDead: boolean,
  suppressedFor: readonly Scope[],
  settings: CheckSettings,
  at: number,
): Judgement['call'] {
  if (!valid || isDead) return null
  if (isClosed(suppressedFor, 'calls')) return 'suppressed'
  return callStateOf(`${country ?? ''} ${timeZonesOf(e164).join('|')}`, settings, at)
}

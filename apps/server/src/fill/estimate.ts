import type { FillEstimate } from '@upper-field/contract'
import { inputFor, PERSON_INPUTS, type PersonInput } from '@upper-field/core/fill'
import type { Db } from '../db/database'
import { isAskable, mostOf, type PlanTerms, servingOf } from './plan'
import { countLeftOut, type FillFor, readWantingGroups, type WantingGroup } from './wanting'

/** Who lacks something, whom each provider can be asked about, who is left out, and the most that can cost. */
export async function estimateFill(
  tx: Db,
  plan: PlanTerms,
  meant: FillFor & { readonly notAgainDays: number },
): Promise<Omit<FillEstimate, 'expected'>> {
  const groups = await readWantingGroups(tx, meant, meant.notAgainDays)
  const counts = new Map(plan.providers.map(({ id }) => [id, { askable: 0, askedLately: 0, lacksInput: 0 }]))
  let most = 0
  let nobody = 0
  for (const group of groups) {
    let worst = 0
    let isServed = false
    for (const provider of servingOf(plan, group)) {
      const count = counts.get(provider.id)
      if (!count) continue
      if (!isAskable(plan, provider, group)) count.lacksInput += group.contacts
      else if (group.answeredBy.includes(provider.id)) count.askedLately += group.contacts
      else {
        count.askable += group.contacts
        worst += mostOf(provider, plan)
        isServed = true
      }
    }
    most += group.contacts * (plan.options.perContact === null ? worst : Math.min(worst, plan.options.perContact))
    if (!isServed) nobody += group.contacts
  }
  const lacking = plan.options.wants.map((want) => [want, countOf(groups, ({ lacks }) => lacks.includes(want))])
  return {
    wanting: countOf(groups, () => true),
    known: knownOf(groups),
    lacking: Object.fromEntries(lacking),
    leftOut: { ...(await countLeftOut(tx, meant)), 'nobody-to-ask': nobody },
    providers: [...counts].map(([provider, count]) => ({ provider, ...count })),
    most,
  }
}

/** Of how many each thing is known that a provider may have to be told. */
function knownOf(groups: readonly WantingGroup[]): FillEstimate['known'] {
  const of = (input: PersonInput) => countOf(groups, (group) => inputFor({ accepts: [input] }, group) !== null)
  return Object.fromEntries(PERSON_INPUTS.map((input) => [input, of(input)])) as FillEstimate['known']
}

const countOf = (groups: readonly WantingGroup[], isMeant: (group: WantingGroup) => boolean): number =>
  groups.reduce((sum, group) => (isMeant(group) ? sum + group.contacts : sum), 0)

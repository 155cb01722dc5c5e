import type { FillEstimate } from '@upper-field/contract'
import { inputFor, PERSON_INPUTS, type PersonInput } from '@upper-field/core/fill'
import type { Db } from '../db/database'
import { isAskable, mostOf, type PlanTerms, planOf, servingOf } from './plan'
import { countLeftOut, type FillFor, type FillOfList, fillForOf, readWantingGroups, type WantingGroup } from './wanting'

/** What a fill comes to, before it is known what providers usually find. */
export type EstimatedFill = Omit<FillEstimate, 'expected'>

/** What a plan for a list comes to now. Throws a problem where a provider of it is not known. */
export const estimatePlan = async (tx: Db, plan: FillOfList): Promise<EstimatedFill> =>
  estimateFill(tx, await planOf(tx, plan), fillForOf(plan))

/** Who lacks something, whom each provider can be asked about, who is left out, and the most that can cost. */
export async function estimateFill(tx: Db, plan: PlanTerms, meant: FillFor): Promise<EstimatedFill> {
  const groups = await readWantingGroups(tx, meant)
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

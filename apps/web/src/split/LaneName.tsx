import type { LaneRules } from '@upper-field/contract'
import { useReadLaneRulesQuery } from '../api'
import { useListView } from '../shell/useListView'
import { laneText } from '../words/sentences'

/** What a lane is called: by the rules of its list, where it has some of its own. */
export const laneNameIn = (rules: LaneRules | undefined, lane: string): string =>
  rules?.rules.find((one) => one.lane === lane)?.name || laneText(lane)

export function useLaneName(): (lane: string) => string {
  const { listId } = useListView()
  const { data: rules } = useReadLaneRulesQuery({ params: { listId } }, { skip: listId === '' })
  return (lane) => laneNameIn(rules, lane)
}

export function LaneName({ lane }: { lane: string }) {
  return <>{useLaneName()(lane)}</>
}

import { useShown } from '../shell/useShown'

/** What of Split can be shown, in the order of its tabs. */
export const SPLIT_TABS = ['lanes', 'calls'] as const

export const useSplitTab = () => useShown(SPLIT_TABS, () => 'lanes')

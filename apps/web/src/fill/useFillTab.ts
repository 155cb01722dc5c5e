import { useShown } from '../shell/useShown'

/** What of Fill can be shown, in the order of its tabs. */
export const FILL_TABS = ['waterfall', 'trail', 'sample'] as const

/** What of Fill is shown. */
export const useFillTab = () => useShown(FILL_TABS, () => 'waterfall')

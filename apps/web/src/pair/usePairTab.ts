import { useShown } from '../shell/useShown'

/** What of Pair can be shown, in the order of its tabs. */
export const PAIR_TABS = ['pairs', 'contacts', 'lines', 'lists'] as const

/** What of Pair is shown; a filter opens the contacts. */
export const usePairTab = () => useShown(PAIR_TABS, (search) => (search.get('q') === null ? 'pairs' : 'contacts'))

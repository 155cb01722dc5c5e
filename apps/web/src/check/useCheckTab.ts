import { useShown } from '../shell/useShown'

/** What of Check can be shown, in the order of its tabs. */
export const CHECK_TABS = ['lines', 'countries', 'addresses', 'do-not-call'] as const

/** What of Check is shown. */
export const useCheckTab = () => useShown(CHECK_TABS, () => 'lines')

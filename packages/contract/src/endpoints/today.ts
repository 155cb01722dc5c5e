import { z } from 'zod'
import { CalendarFeed, FoundInList, Todo } from '../today'
import { endpoint, nothing } from './endpoint'

/** What wants doing, over all lists. */
export const todayEndpoints = {
  readToday: endpoint('get', '/today', 'What wants doing today over all lists, the most pressing first', {
    response: z.array(Todo),
  }),
  searchLists: endpoint('get', '/search', 'Contacts of all lists that a filter chooses', {
    query: z.object({ filter: z.string().min(1).max(300) }),
    response: z.array(FoundInList),
  }),
  makeCalendar: endpoint('post', '/calendar', 'Make the address of a calendar of reminders; the one before ends', {
    response: CalendarFeed,
  }),
  removeCalendar: endpoint('delete', '/calendar', 'End the calendar of reminders', { response: nothing }),
  readCalendar: endpoint('get', '/calendar/{secret}', 'Reminders as a calendar (RFC 5545)', {
    params: z.object({ secret: z.string().regex(/^[\w-]{20,80}$/) }),
    response: 'file',
    role: null,
  }),
}

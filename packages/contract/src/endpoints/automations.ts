import { z } from 'zod'
import { Automation, AutomationRun, NewAutomation } from '../automations'
import { Id } from '../words'
import { endpoint, nothing, OfList } from './endpoint'

const OfAutomation = z.object({ automationId: Id })

/** What a list has done by itself. */
export const automationEndpoints = {
  readAutomations: endpoint('get', '/lists/{listId}/automations', 'What is done by itself in a list', {
    params: OfList,
    response: z.array(Automation),
  }),
  makeAutomation: endpoint('post', '/lists/{listId}/automations', 'Have something done by itself', {
    params: OfList,
    body: NewAutomation,
    response: Automation,
    role: 'operator',
  }),
  switchAutomation: endpoint('patch', '/automations/{automationId}', 'Switch an automation on or off', {
    params: OfAutomation,
    body: z.object({ isOn: z.boolean() }),
    response: Automation,
    role: 'operator',
  }),
  removeAutomation: endpoint('delete', '/automations/{automationId}', 'Remove an automation', {
    params: OfAutomation,
    response: nothing,
    role: 'operator',
  }),
  readAutomationRuns: endpoint('get', '/lists/{listId}/automation-runs', 'What was done by itself, the latest first', {
    params: OfList,
    response: z.array(AutomationRun),
  }),
}

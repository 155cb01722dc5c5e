export * from './auth'
export { automationRuns, automations } from './automations'
export {
  addresses,
  callPlaces,
  calls,
  checkSettings,
  contactCube,
  contactEmails,
  contactIds,
  contactNumbers,
  contacts,
  doNotCall,
  joins,
  numbers,
  sentContacts,
  tidyCounts,
} from './contacts'
export { directoryRecords, directorySearches } from './directory'
export {
  attempts,
  candidates,
  companyFacts,
  connections,
  fillRuns,
  fillSearches,
  fillStanding,
  fills,
  lawfulRegions,
} from './fill'
export {
  type HarvestSettings,
  harvestDecisions,
  harvestFindings,
  harvestPages,
  harvestSites,
  harvests,
  numberFormats,
} from './harvest'
export { addressChecks, callLimits, charges, doNotCallChecks, idempotencyKeys, jobs, lineChecks } from './jobs'
export { batches, batchPieces, heldRows, laneRules, layouts, lists, rows, segments } from './lists'
export { machineBatches, machineCalls, machineContacts, machineKeys, webhookMessages, webhooks } from './machine'
export { pairDecisions, pairStates, pairs, valueChoices } from './pair'
export {
  audienceMembers,
  audiences,
  calendars,
  deliveries,
  destinationKeys,
  destinations,
  editionCompanies,
  editionLeftOut,
  editionLines,
  editionMembers,
  editionPieces,
  editions,
  fileLayouts,
  type MixBySource,
  trials,
} from './send'
export { providerLimits, spendLimit } from './spend'
export { forgotten, suppressionBatches, suppressionEntries, suppressionLists } from './suppression'
export { acts, edits, leftOut, routines } from './tidy'

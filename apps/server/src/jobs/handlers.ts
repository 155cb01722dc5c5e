import { bringInJob } from '../bring/bringInJob'
import { takeBackJob } from '../bring/takeBackJob'
import { checkJob } from '../check/checkJob'
import { indexJob } from '../contacts/indexJob'
import { directoryJob } from '../directory/directoryJob'
import { fillJob } from '../fill/fillJob'
import { harvestJob } from '../harvest/harvestJob'
import { pairJob } from '../pair/pairJob'
import { deliverJob } from '../send/deliverJob'
import { editionJob } from '../send/editionJob'
import { prepareJob } from '../send/prepareJob'
import { markJob } from '../suppression/markLater'
import { tidyJob } from '../tidy/tidyJob'
import type { JobHandlers } from './runner'

/** Who does which kind of work. */
export const jobHandlers: JobHandlers = {
  'bring-in': bringInJob,
  harvest: harvestJob,
  directory: directoryJob,
  'take-back': takeBackJob,
  index: indexJob,
  check: checkJob,
  fill: fillJob,
  mark: markJob,
  edition: editionJob,
  prepare: prepareJob,
  deliver: deliverJob,
  tidy: tidyJob,
  pair: pairJob,
}

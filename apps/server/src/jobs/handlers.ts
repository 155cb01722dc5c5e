import { bringInJob } from '../bring/bringInJob'
import { checkJob } from '../check/checkJob'
import { fillJob } from '../fill/fillJob'
import { editionJob } from '../send/editionJob'
import type { JobHandlers } from './runner'

/** Who does which kind of work. */
export const jobHandlers: JobHandlers = { 'bring-in': bringInJob, check: checkJob, fill: fillJob, edition: editionJob }

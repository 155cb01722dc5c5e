import { z } from 'zod'
import { Job } from '../jobs'
import { endpoint, OfJob, OfList } from './endpoint'

/** Work that takes time. */
export const jobsEndpoints = {
  readJobs: endpoint('get', '/lists/{listId}/jobs', 'Latest jobs of a list', {
    params: OfList,
    scope: 'read',
    response: z.array(Job),
  }),
  stopJob: endpoint('post', '/jobs/{jobId}/stop', 'Stop a job; what is done stays done', {
    params: OfJob,
    response: Job,
    role: 'operator',
  }),
  pauseJob: endpoint('post', '/jobs/{jobId}/pause', 'Pause a job after its current step', {
    params: OfJob,
    response: Job,
    role: 'operator',
  }),
  resumeJob: endpoint('post', '/jobs/{jobId}/resume', 'Go on where a job was stopped', {
    params: OfJob,
    response: Job,
    role: 'operator',
  }),
  watch: endpoint('get', '/events', 'Progress of jobs as server-sent events', { response: 'events' }),
}

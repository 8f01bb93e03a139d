import { endpoints } from '@pelrin/contract'
import type { Serving } from '../http/serve.ts'
import { closeJob } from './close.ts'
import { stopJob, undoJob } from './end.ts'
import { changeHouseSchools, houseSchools } from './schools.ts'
import { addEvent, jobAndEstimate, openJob } from './service.ts'

export function jobsRoutes(serving: Serving): void {
  serving.serve(endpoints.houseSchools, ({ work }) => houseSchools(work))
  serving.serve(endpoints.changeHouseSchools, ({ work, version, body }) => changeHouseSchools(work, version, body))
  serving.serve(endpoints.bikeJob, ({ work, params }) => jobAndEstimate(work, params.id))
  serving.serve(endpoints.openJob, ({ work, params, body }) => openJob(work, params.id, body))
  serving.serve(endpoints.jobEvent, ({ work, params, body }) => addEvent(work, params.id, body))
  serving.serve(endpoints.closeJob, ({ work, params, body }) => closeJob(work, params.id, body))
  serving.serve(endpoints.stopJob, ({ work, params, body }) => stopJob(work, params.id, body.reason))
  serving.serve(endpoints.undoJob, ({ work, params, body }) => undoJob(work, params.id, body.reason))
}

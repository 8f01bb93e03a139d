import { endpoints } from '@pelrin/contract'
import type { Serving } from '../http/serve.ts'
import { bikeParts } from './bikeParts.ts'
import { changeDrive } from './drive.ts'
import { seeJoint } from './joints.ts'

export function partsRoutes(serving: Serving): void {
  serving.serve(endpoints.bikeParts, ({ work, params, query }) => bikeParts(work, params.id, query))
  serving.serve(endpoints.seeJoint, ({ work, params, body }) => seeJoint(work, params.id, body))
  serving.serve(endpoints.changeDrive, ({ work, params, version, body }) => changeDrive(work, params.id, version, body))
}

import { endpoints } from '@pelrin/contract'
import type { Serving } from '../http/serve.ts'
import { addBike } from './addBike.ts'
import { changeBike } from './changeBike.ts'
import { findCustomers } from './customers.ts'
import { decide, withdrawDecision } from './decide.ts'
import { findBikes } from './find.ts'
import { rackPage } from './rack.ts'
import { bikeRecord } from './record.ts'

export function bikesRoutes(serving: Serving): void {
  serving.serve(endpoints.rack, ({ work, query, session }) => rackPage(work, query, session.shop.timeZone))
  serving.serve(endpoints.customers, ({ work, query }) => findCustomers(work, query.q))
  serving.serve(endpoints.addBike, ({ work, body }) => addBike(work, body))
  serving.serve(endpoints.find, ({ work, query }) => findBikes(work, query.q))
  serving.serve(endpoints.bike, ({ work, params }) => bikeRecord(work, params.id))
  serving.serve(endpoints.decide, ({ work, params, body }) => decide(work, params.id, body))
  serving.serve(endpoints.withdrawDecision, ({ work, params, body }) => withdrawDecision(work, params.id, body))
  serving.serve(endpoints.changeBike, ({ work, params, version, body }) => changeBike(work, params.id, version, body))
}

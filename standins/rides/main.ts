import { runStandIn } from '../runStandIn.ts'
import { RidesStandIn } from './RidesStandIn.ts'

await runStandIn(new RidesStandIn(Date.now()))

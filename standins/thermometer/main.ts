import { runStandIn } from '../runStandIn.ts'
import { ThermometerStandIn } from './ThermometerStandIn.ts'

await runStandIn(new ThermometerStandIn())

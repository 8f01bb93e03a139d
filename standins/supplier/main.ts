import { runStandIn } from '../runStandIn.ts'
import { SupplierStandIn } from './SupplierStandIn.ts'

await runStandIn(new SupplierStandIn())

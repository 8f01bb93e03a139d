import { runStandIn } from '../runStandIn.ts'
import { MessagesStandIn } from './MessagesStandIn.ts'

await runStandIn(new MessagesStandIn())

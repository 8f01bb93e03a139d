import { RidesStandIn } from './RidesStandIn.ts'

/** Runs the stand-in ride service until told to stop. */
const standIn = new RidesStandIn(Date.now())
const address = await standIn.listen(Number(process.env['PORT'] ?? 0))
process.send?.({ listening: Number(address.split(':')[1]) })
const stop = (): void => void standIn.close().then(() => process.exit(0))
process.on('SIGTERM', stop)
process.on('disconnect', stop)

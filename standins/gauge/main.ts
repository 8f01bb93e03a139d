import { GaugeStandIn } from './GaugeStandIn.ts'

/** Runs the stand-in by itself: `tsx standins/gauge/main.ts [port]`. Ends when told to, or when its parent goes. */
const gauge = new GaugeStandIn()
const port = await gauge.listen(Number(process.argv[2] ?? 0))
process.stdout.write(`The stand-in gauge listens on 127.0.0.1:${port}\n`)
process.send?.({ listening: port })

const stop = (): void => void gauge.close().then(() => process.exit(0))
process.on('SIGTERM', stop)
process.on('SIGINT', stop)
process.on('disconnect', stop)

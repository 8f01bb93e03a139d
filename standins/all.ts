import { GaugeStandIn } from './gauge/GaugeStandIn.ts'
import { MessagesStandIn } from './messages/MessagesStandIn.ts'
import { RidesStandIn } from './rides/RidesStandIn.ts'
import { SupplierStandIn } from './supplier/SupplierStandIn.ts'
import { ThermometerStandIn } from './thermometer/ThermometerStandIn.ts'

/** Where each stand-in listens, `host:port`. */
export interface StandInsTold {
  readonly GAUGE_STAND_IN: string
  readonly RIDES_STAND_IN: string
  readonly SUPPLIER: string
  readonly GATEWAY: string
  readonly THERMOMETER: string
}

/** Runs all stand-ins as one program, which takes a fifth of what five do; each can be run alone by its own. */
const gauge = new GaugeStandIn()
const [rides, supplier, messages, thermometer] = [
  new RidesStandIn(Date.now()),
  new SupplierStandIn(),
  new MessagesStandIn(),
  new ThermometerStandIn(),
]
const told: StandInsTold = {
  GAUGE_STAND_IN: `127.0.0.1:${await gauge.listen(0)}`,
  RIDES_STAND_IN: await rides.listen(0),
  SUPPLIER: await supplier.listen(0),
  GATEWAY: await messages.listen(0),
  THERMOMETER: await thermometer.listen(0),
}
process.send?.(told)

const stop = (): void =>
  void Promise.all([gauge, rides, supplier, messages, thermometer].map((one) => one.close())).then(() =>
    process.exit(0),
  )
process.on('SIGTERM', stop)
process.on('disconnect', stop)

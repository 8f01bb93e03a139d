import { endpoints } from '@pelrin/contract'
import type { CurrentSession } from '../sessions/currentSession.ts'
import type { DeviceAddresses } from '../devices/addresses.ts'
import type { GaugeHub } from '../gauge/hub.ts'
import type { Serving } from '../http/serve.ts'
import { inBackground } from '../queue/background.ts'
import {
  addInstrument,
  instrumentHistory,
  listInstruments,
  register,
  retireInstrument,
  reviseInstrument,
} from './service.ts'

/** @param hub told when a gauge that sends by itself was connected, moved or retired */
export function instrumentsRoutes(serving: Serving, hub: GaugeHub, devices: DeviceAddresses): void {
  // After the transaction: until then the register is as it was.
  const refreshed = <Result>(session: CurrentSession, result: Result): Result => {
    setImmediate(() => inBackground(serving.logger, 'gauges', () => hub.refresh(session.shop.id)))
    return result
  }
  serving.serve(endpoints.instruments, ({ work }) => listInstruments(work))
  serving.serve(endpoints.register, ({ work }) => register(work))
  serving.serve(endpoints.instrument, ({ work, params }) => instrumentHistory(work, params.id))
  serving.serve(endpoints.addInstrument, async ({ work, body, session }) =>
    refreshed(session, await addInstrument(work, devices, body)),
  )
  serving.serve(endpoints.reviseInstrument, async ({ work, params, body, session }) =>
    refreshed(session, await reviseInstrument(work, devices, params.id, body)),
  )
  serving.serve(endpoints.retireInstrument, async ({ work, params, body, session }) =>
    refreshed(session, await retireInstrument(work, params.id, body)),
  )
}

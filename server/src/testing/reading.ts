import { v7 } from 'uuid'
import { endpoints, type Output } from '@pelrin/contract'
import type { Device } from './device.ts'

/** The bike of the demo shop with a label, by the finder. */
export async function bikeNamed(device: Device, text: string): Promise<Output<typeof endpoints.find.result>[number]> {
  const { body } = await device.ask(endpoints.find, { query: { q: text } })
  const [bike] = body
  if (!bike) throw new Error(`no bike like ${text}`)
  return bike
}

/** The fitting of the chain now on a bike; empty with none. */
export async function fittingOn(device: Device, bikeId: string): Promise<string> {
  const { body } = await device.ask(endpoints.bike, { params: { id: bikeId } })
  return body.chain?.fittingId ?? ''
}

/** A reading to send, of one spot on the shop's metric rule. */
export async function readingOf(
  device: Device,
  bikeId: string,
  more: Record<string, unknown> = {},
): Promise<Record<string, unknown>> {
  const { body: instruments } = await device.ask(endpoints.instruments)
  const rule = instruments.find((instrument) => instrument.name.includes('600 mm'))
  return {
    id: v7(),
    bikeId,
    fittingId: await fittingOn(device, bikeId),
    occurredAt: new Date().toISOString(),
    instrumentId: rule?.id ?? '',
    spots: [{ id: v7(), typed: '204.6', pitches: 16 }],
    ...more,
  }
}

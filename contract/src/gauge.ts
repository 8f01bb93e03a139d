import * as v from 'valibot'
import { Id, Moment } from './common.ts'
import { endpoint } from './endpoint.ts'

/** How a connected gauge stands. */
export const GaugeState = v.picklist(['connected', 'away', 'silent', 'flooding'])
export type GaugeState = v.InferOutput<typeof GaugeState>

/** What a connected gauge has to say, numbered so that a screen that was away gets what it missed. */
export const GaugeEvent = v.variant('kind', [
  v.object({ kind: v.literal('reading'), instrumentId: Id, at: Moment, percent: v.number() }),
  v.object({ kind: v.literal('zeroed'), instrumentId: Id, at: Moment }),
  v.object({
    kind: v.literal('state'),
    instrumentId: Id,
    at: Moment,
    state: GaugeState,
    /** 0 to 100; null before it said so. */
    battery: v.nullable(v.number()),
    zeroedAt: v.nullable(Moment),
    /** Lines that made no sense since it was connected. */
    garbled: v.number(),
  }),
  /** Which screen its readings go to, by the name the screen gave itself. */
  v.object({ kind: v.literal('held'), instrumentId: Id, at: Moment, holder: v.string() }),
])
export type GaugeEvent = v.InferOutput<typeof GaugeEvent>

/**
 * Server-sent events of one gauge. `holder` names the screen that takes its readings; the newest to ask has it.
 *
 * @param after number of the last event the screen got before it was loaded again; left out: none are caught up on
 */
export const gaugeEventsPath = (instrumentId: string, holder: string, after?: string): string =>
  `/api/v1/instruments/${instrumentId}/events?holder=${encodeURIComponent(holder)}${after === undefined ? '' : `&after=${encodeURIComponent(after)}`}`

/** Address of the stand-in that ships with Pelrin, wherever it listens. */
export const STAND_IN = 'stand-in:0'

export const gaugeEndpoints = {
  moveStandIn: endpoint({
    name: 'moveStandIn',
    method: 'POST',
    path: '/instruments/:id/stand-in',
    summary: 'Move the stand-in gauge as a hand would: press its button, zero it, or let it fail.',
    access: 'record',
    params: v.object({ id: Id }),
    body: v.variant('do', [
      v.object({ do: v.literal('press') }),
      v.object({ do: v.literal('squeeze') }),
      v.object({ do: v.literal('unplug') }),
      v.object({
        do: v.literal('wear'),
        percent: v.pipe(
          v.number('number-malformed'),
          v.minValue(0, 'number-malformed'),
          v.maxValue(2, 'number-malformed'),
        ),
      }),
      v.object({
        do: v.literal('fault'),
        fault: v.picklist(['slow', 'silent', 'half', 'garbage', 'duplicates', 'drift', 'flood'], 'field-invalid'),
        on: v.boolean(),
      }),
    ]),
    creates: true,
  }),
}

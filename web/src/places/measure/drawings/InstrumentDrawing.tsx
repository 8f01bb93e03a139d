import { hangsWholeChain } from '@pelrin/core'
import type { Assumptions } from '@pelrin/core'
import type { Instrument } from '@pelrin/contract'
import { number } from '../../../messages/format.ts'
import { typedNumber } from '../../../messages/typedNumber.ts'
import { RunRule } from '../../../pieces/RunRule.tsx'
import type { Draft, DraftSpot } from '../draft.ts'
import type { SpotReading } from '../evaluate.ts'
import { CaliperDrawing } from './CaliperDrawing.tsx'
import { DigitalDrawing } from './DigitalDrawing.tsx'
import { DropInDrawing } from './DropInDrawing.tsx'
import { GraduatedDrawing } from './GraduatedDrawing.tsx'
import { HandDrawing } from './HandDrawing.tsx'
import { SwingArmDrawing } from './SwingArmDrawing.tsx'
import { TwoPinDrawing } from './TwoPinDrawing.tsx'

/** The instrument in hand with what was typed on it, to scale. */
export function InstrumentDrawing({
  instrument,
  draft,
  spot,
  reading,
  limit,
  colour,
  assumed,
}: {
  instrument: Instrument
  draft: Draft
  spot: DraftSpot
  reading: SpotReading
  limit: number
  colour: string
  assumed: Assumptions
}) {
  const ready = reading.state === 'ready' ? reading : null
  const span = ready?.span ?? null
  // What stands on the scale: the bias is the instrument's own affair and not to be seen on it.
  const shown = ready?.observed.value === undefined ? null : ready.observed.value + instrument.bias
  switch (instrument.kind) {
    case 'steel-rule':
    case 'full-length': {
      const hung = hangsWholeChain(instrument.kind)
      const preload = typedNumber(draft.preloadKg) ?? assumed.measuring.preloadKg
      return (
        <RunRule
          lengthMm={ready?.observed.lengthMm ?? null}
          pitches={ready?.observed.pitches ?? null}
          unit={span?.unit ?? 'mm'}
          denominator={span?.denominator ?? 32}
          limit={limit}
          colour={colour}
          hungWith={hung ? `${number(preload, preload % 1 === 0 ? 0 : 1)} kg` : null}
        />
      )
    }
    case 'caliper':
      return (
        <CaliperDrawing
          lengthMm={ready?.observed.lengthMm ?? null}
          pitches={ready?.observed.pitches ?? null}
          mode={draft.mode}
          rollerMm={instrument.rollerMm}
          colour={colour}
        />
      )
    case 'drop-in':
    case 'three-contact':
      return (
        <DropInDrawing
          typed={spot.typed}
          marks={instrument.marks ?? []}
          held={instrument.kind === 'three-contact'}
          colour={colour}
        />
      )
    case 'two-pin':
      return <TwoPinDrawing typed={spot.typed} marks={instrument.marks ?? []} limit={limit} colour={colour} />
    case 'swing-arm':
      return (
        <SwingArmDrawing
          value={shown}
          past={ready !== null && ready.observed.value === undefined}
          top={instrument.marks?.at(-1) ?? 1}
          limit={limit}
          colour={colour}
        />
      )
    case 'graduated':
      return <GraduatedDrawing value={shown} limit={limit} colour={colour} />
    case 'digital':
      return <DigitalDrawing value={shown} colour={colour} />
    case 'by-hand':
      return <HandDrawing noticed={draft.signs ?? []} />
  }
}

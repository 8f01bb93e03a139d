import { Beside } from '../../pieces/Beside.tsx'
import { EarlierBreaks } from './EarlierBreaks.tsx'
import { LookedOver } from './LookedOver.tsx'
import { MendOutcome } from './MendOutcome.tsx'
import { useMendBench, type MendProps } from './useMendBench.ts'
import { Ways } from './Ways.tsx'

/** The broken chain on the bench: looked over section by section, then mended in one of the ways there are, or replaced. */
export function MendBench(props: MendProps) {
  const mending = useMendBench(props)
  return (
    <Beside width={440} beside={<MendOutcome {...mending} />}>
      <LookedOver {...mending} />
      {mending.inspected && <Ways {...mending} />}
      <EarlierBreaks mends={props.known.mends} bikeId={props.bikeId} />
    </Beside>
  )
}

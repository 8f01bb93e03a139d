import { Beside } from '../../pieces/Beside.tsx'
import { AddBackDialog } from './AddBackDialog.tsx'
import { EarlierBreaks } from './EarlierBreaks.tsx'
import { LookedOver } from './LookedOver.tsx'
import { MendOutcome } from './MendOutcome.tsx'
import { useMendBench, type MendProps } from './useMendBench.ts'
import { WearFirst } from './WearFirst.tsx'
import { Ways } from './Ways.tsx'

/** The broken chain on the bench: looked over section by section, then mended in one of the ways there are, or replaced. */
export function MendBench(props: MendProps) {
  const mending = useMendBench(props)
  return (
    <Beside width={440} beside={<MendOutcome {...mending} />}>
      <WearFirst {...mending} />
      <LookedOver {...mending} />
      {mending.inspected && <Ways {...mending} />}
      <EarlierBreaks {...mending} />
      {mending.adding && (
        <AddBackDialog
          bikeId={props.bikeId}
          known={props.known}
          chain={props.chain}
          mend={mending.adding}
          onClose={() => mending.setAdding(null)}
        />
      )}
    </Beside>
  )
}

import { ToggleButton, ToggleButtonGroup } from '@mui/material'
import { useTranslation } from 'react-i18next'
import { CALIPER_MODES, KINDS, looksAtPlaces } from '@pelrin/core'
import { percent } from '../../messages/format.ts'
import { ChainLoop } from '../../pieces/ChainLoop.tsx'
import { GaugeStrip } from '../../pieces/GaugeStrip.tsx'
import { readAgainstMark, shortLabel } from './labels.ts'
import { MarksPad } from './MarksPad.tsx'
import { PinPictures } from './PinPictures.tsx'
import { SignsPad } from './SignsPad.tsx'
import { SpotField } from './SpotField.tsx'
import type { Bench } from './useMeasureBench.ts'

/** The places of the round, and what is read at the one it is at. */
export function RoundEntry(bench: Bench) {
  const { t } = useTranslation()
  const { record, draft, change, instrument, byHand, assumed, spot, reading, place, wrongAt } = bench
  const { spotInput, odometerInput, setSpot, goOn } = bench
  return (
    <>
      <Loop {...bench} />
      <Gauge {...bench} />
      {KINDS[instrument.kind].jaws === true && (
        <ToggleButtonGroup
          exclusive
          fullWidth
          value={draft.mode}
          aria-label={t('measure.mode')}
          onChange={(_, mode: (typeof CALIPER_MODES)[number] | null) => mode !== null && change({ mode })}
        >
          {CALIPER_MODES.map((mode) => (
            <ToggleButton key={mode} value={mode} sx={{ lineHeight: 1.1, fontSize: 'size.small' }}>
              {t(`measure.modeOf.${mode}`)}
            </ToggleButton>
          ))}
        </ToggleButtonGroup>
      )}
      {byHand ? (
        <SignsPad
          signs={draft.signs}
          onChange={(signs) => change({ signs })}
          onEnter={() => odometerInput.current?.focus()}
        />
      ) : (
        <SpotField
          place={place}
          spot={spot}
          reading={reading}
          instrument={instrument}
          assumed={assumed}
          chainPitches={record.chain?.pitches ?? null}
          error={wrongAt(place)}
          inputRef={spotInput}
          onChange={setSpot}
          onEnter={goOn}
        />
      )}
      {KINDS[instrument.kind].pad && (
        <MarksPad marks={instrument.marks ?? []} typed={spot.typed} onChange={(typed) => setSpot({ ...spot, typed })} />
      )}
      {KINDS[instrument.kind].pictures === true && (spot.picture !== null || readAgainstMark(spot.typed)) && (
        <PinPictures picture={spot.picture} onPick={(picture) => setSpot({ ...spot, picture })} />
      )}
    </>
  )
}

function Loop({ instrument, spots, place, worstPlace, worstColour, draft, wanted, spread, wrongAt, goTo }: Bench) {
  const { t } = useTranslation()
  if (!looksAtPlaces(instrument.kind)) return null
  return (
    <ChainLoop
      spots={spots.map((one, i) => ({
        state:
          wrongAt(i) !== undefined || one.state === 'problem' || one.state === 'no-count'
            ? 'problem'
            : one.state === 'empty'
              ? 'empty'
              : 'ready',
        label: shortLabel(one),
      }))}
      current={place}
      worst={worstPlace}
      colour={worstColour}
      named={draft.named}
      wanted={wanted > 0 ? t('measure.wanted', { count: wanted }) : t('measure.wantedNone')}
      spread={spread === null ? null : t('measure.spread', { percent: percent(spread) })}
      onPick={goTo}
    />
  )
}

function Gauge({ instrument, gauge, openedAt, take }: Bench) {
  return gauge && <GaugeStrip instrument={instrument} gauge={gauge} openedAt={openedAt} onTake={take} />
}

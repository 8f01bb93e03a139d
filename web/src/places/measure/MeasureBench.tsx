import { Alert, Box, Button, Stack, TextField, ToggleButton, ToggleButtonGroup, Typography } from '@mui/material'
import { DEFAULTS } from '@pelrin/core'
import { useCallback, useEffect, useMemo, useRef, useState } from 'react'
import { flushSync } from 'react-dom'
import { useTranslation } from 'react-i18next'
import { useNavigate } from 'react-router'
import type { BikeRecord, Instrument, Reading } from '@pelrin/contract'
import { useGauge } from '../../api/useGauge.ts'
import { useSurroundings } from '../../app/surroundings.ts'
import { useTypedAhead } from '../../keys/typing.tsx'
import { percent } from '../../messages/format.ts'
import { BikeLine } from '../../pieces/BikeLine.tsx'
import { ChainLoop } from '../../pieces/ChainLoop.tsx'
import { GaugeStrip } from '../../pieces/GaugeStrip.tsx'
import { KeyButton } from '../../pieces/KeyButton.tsx'
import { VERDICT_LOOK } from '../../pieces/verdictLook.ts'
import { ink } from '../../theme/theme.ts'
import { useDraft, type DraftSpot } from './draft.ts'
import { forecastInput } from '../../pieces/forecastInput.ts'
import { useForecast } from '../../workers/useForecast.ts'
import {
  assumedFor,
  liveInput,
  liveVerdict,
  readOdometer,
  readRound,
  wantsSpots,
  type SpotReading,
} from './evaluate.ts'
import { celsiusWrong, HowTaken, preloadWrong } from './HowTaken.tsx'
import { InstrumentWall } from './InstrumentWall.tsx'
import { LivePane } from './LivePane.tsx'
import { MarksPad } from './MarksPad.tsx'
import { OdometerField } from './OdometerField.tsx'
import { PinPictures } from './PinPictures.tsx'
import { SignsPad } from './SignsPad.tsx'
import { SpotField } from './SpotField.tsx'
import { Traps } from './Traps.tsx'
import { useSaving } from './useSaving.ts'
import { shortLabel, spreadOf } from './labels.ts'
import { problemText } from '../../messages/said.ts'
import { useCommands } from '../../keys/useCommands.ts'

const LAST_INSTRUMENT = 'pelrin-last-instrument'
const MODES = ['pin-to-pin', 'inside-rollers', 'outside-rollers'] as const
/** A whole mark a rule's end can be read against, without a length: whole inches, or every 50 mm. */
const WHOLE_MARK = /^\s*(?:\d{1,2}\s*(?:in|"|″)|\d{2,4}\s*(?:mm)?)\s*$/i

export function MeasureBench({
  record,
  instruments,
  corrects,
}: {
  record: BikeRecord
  instruments: readonly Instrument[]
  corrects: Reading | null
}) {
  const { t } = useTranslation()
  const navigate = useNavigate()
  const { session } = useSurroundings()
  const bikeId = record.summary.id
  const isNew = record.chain?.baselineWanted ?? false
  const { draft, restored, change, clear } = useDraft(bikeId, corrects, {
    latest: record.readings.find(({ source, spots }) => source === 'shop' && spots.length > 0),
    baseline: isNew,
    fittingId: record.chain?.fittingId ?? '',
    arrived: (readingId) => record.readings.some(({ id }) => id === readingId),
  })
  const [whyOpen, setWhyOpen] = useState(false)
  const [place, setPlace] = useState(0)
  const [openedAt] = useState(() => Date.now())
  const spotInput = useRef<HTMLInputElement>(null)
  const odometerInput = useRef<HTMLInputElement>(null)
  const reasonInput = useRef<HTMLInputElement>(null)

  const instrument =
    instruments.find((one) => one.id === (draft.instrumentId ?? localStorage.getItem(LAST_INSTRUMENT))) ??
    instruments.find((one) => one.kind === 'steel-rule') ??
    instruments[0]!
  const byHand = instrument.kind === 'by-hand'
  const assumed = useMemo(() => assumedFor(record), [record])
  const spots = useMemo(
    () => readRound(draft, instrument, assumed, record.summary.limit),
    [draft, instrument, assumed, record.summary.limit],
  )
  const unit = record.lastOdometer?.unit ?? session.shop.distanceUnit
  // A correction is held against the value before the one it takes the place of, which the server knows; here
  // only a new reading is asked about.
  const odometer = readOdometer(draft.odometer.typed, unit, corrects ? null : record.lastOdometer, openedAt, assumed)
  const input = liveInput(record, draft, spots, instrument, odometer, openedAt, corrects?.id ?? null)
  const forecast = useForecast(forecastInput(input), record.assumptions)
  const live = liveVerdict(
    record,
    draft,
    spots,
    instrument,
    odometer,
    openedAt,
    corrects?.id ?? null,
    forecast.pending ? null : (forecast.picture?.forecast ?? null),
  )
  const {
    saving,
    save: send,
    refused,
    forgive,
    wrongAt,
    wrongIn,
    elsewhere,
  } = useSaving(record, corrects?.id ?? null, unit)
  const spot = draft.spots[place]!
  const reading = spots[place]!
  const typedPlaces = spots.flatMap((one, i) => (one.state === 'empty' ? [] : [i]))
  const readyPlaces = spots.flatMap((one, i) => (one.state === 'ready' ? [i] : []))

  const setSpot = (changed: DraftSpot): void => {
    forgive()
    change((before) => ({ spots: before.spots.map((old, i) => (i === place ? changed : old)) }))
  }
  const focusEntry = useCallback(() => {
    if (spotInput.current) {
      spotInput.current.focus()
      spotInput.current.select()
    } else document.querySelector<HTMLElement>('[data-first-sign]')?.focus()
  }, [])
  const goTo = (next: number): void => {
    // Drawn at once, so that the next key already lands in the new place.
    flushSync(() => setPlace(next))
    focusEntry()
  }

  useEffect(() => {
    focusEntry()
  }, [focusEntry])
  useTypedAhead((text) => setSpot({ ...spot, typed: spot.typed + text }))
  const leave = useCallback(() => {
    // At once: the next key is already meant for the place it leads to.
    void navigate(corrects ? `/bikes/${bikeId}` : `/?bike=${bikeId}`, { flushSync: true })
  }, [navigate, corrects, bikeId])
  // A dialog that is open takes its own Escape.
  useCommands('measure', {
    jump: wantsSpots(instrument.kind) ? (digit) => goTo(digit - 1) : null,
    mode:
      instrument.kind === 'caliper'
        ? () => change((before) => ({ mode: MODES[(MODES.indexOf(before.mode) + 1) % MODES.length]! }))
        : null,
    why: () => setWhyOpen(true),
    leave,
  })

  const { gauge, take } = useGauge(
    instrument.connected ? instrument.id : undefined,
    draft.readingId,
    // A reading of the connected gauge goes where a typed one would, and on to the next place.
    (percentShown) => {
      const at =
        draft.spots[place]?.typed.trim() === '' ? place : draft.spots.findIndex((one) => one.typed.trim() === '')
      if (at < 0) return
      forgive()
      change((before) => ({
        spots: before.spots.map((old, i) => (i === at ? { ...old, typed: percentShown.toFixed(2) } : old)),
      }))
      const next = draft.spots.findIndex((one, i) => i > at && one.typed.trim() === '')
      goTo(next < 0 ? at : next)
    },
  )

  const choose = (id: string): void => {
    forgive()
    // Drawn at once: what is focused next belongs to it.
    flushSync(() => change({ instrumentId: id }))
    // A whole chain is read at one place, which is the first.
    if (instruments.find((one) => one.id === id)?.kind === 'full-length') setPlace(0)
  }
  const goOn = (from: SpotReading): void => {
    const next = draft.spots.findIndex((one, i) => i > place && one.typed.trim() === '')
    if (from.state === 'ready' && wantsSpots(instrument.kind) && next >= 0) goTo(next)
    else if (from.state === 'ready' || (from.state === 'empty' && typedPlaces.length > 0))
      odometerInput.current?.focus()
  }

  /** Leads to the first thing that stands in the way; true when nothing does. */
  const complete = (odometerNow = draft.odometer): boolean => {
    if (byHand ? draft.signs === null : typedPlaces.length === 0) {
      focusEntry()
      return false
    }
    const notReady = byHand ? undefined : typedPlaces.find((i) => spots[i]?.state !== 'ready')
    if (notReady !== undefined) {
      goTo(notReady)
      return false
    }
    if (celsiusWrong(draft.ruleCelsius) || celsiusWrong(draft.chainCelsius) || preloadWrong(draft.preloadKg))
      return false
    if (odometer.state === 'problem') {
      odometerInput.current?.focus()
      return false
    }
    if (odometer.state === 'ready' && odometer.doubt !== null && odometerNow.lower === null) {
      document.querySelector<HTMLElement>('[data-answer="1"]')?.focus()
      return false
    }
    if (corrects && draft.reason.trim() === '') {
      reasonInput.current?.focus()
      return false
    }
    return true
  }
  const save = (odometerNow = draft.odometer): void => {
    if (!complete(odometerNow)) return
    localStorage.setItem(LAST_INSTRUMENT, instrument.id)
    void send({ ...draft, odometer: odometerNow }, byHand ? [] : spots, instrument, () => {
      clear()
      leave()
    })
  }

  const look = live ? VERDICT_LOOK[live.verdict.word] : null
  const worstPlace = live?.worstTyped === null || live === null ? null : (readyPlaces[live.worstTyped] ?? null)
  const drawnPlace = reading.state === 'ready' ? place : (readyPlaces.at(-1) ?? place)
  const wanted = live && readyPlaces.length > 0 ? live.verdict.spotsWanted : DEFAULTS.measuring.spotsWanted
  const spread = spreadOf(spots)
  return (
    <Box
      sx={{
        display: 'grid',
        gridTemplateColumns: { xs: '1fr', md: '430px minmax(0, 1fr)' },
        gridTemplateRows: 'auto 1fr',
        minHeight: '100%',
      }}
    >
      <InstrumentWall instruments={instruments} chosen={instrument.id} onChoose={choose} onDone={focusEntry} />
      <Stack sx={{ p: 2.25, pt: 1.25, gap: 1.25, borderRight: { md: 1 }, borderColor: { md: 'divider' } }}>
        <Box>
          <Typography variant="h2" component="h1">
            {corrects ? t('bike.correctTitle') : record.customer.name}
          </Typography>
          <Typography color="textSecondary">
            {corrects && `${record.customer.name}, `}
            <BikeLine bike={record.summary} teeth={!corrects} />, {t('find.tag', { tag: record.summary.tag })}
          </Typography>
        </Box>
        {!corrects && draft.fittingId !== (record.chain?.fittingId ?? '') && (
          <Alert
            severity="warning"
            icon={false}
            action={
              record.chain && (
                <Button
                  size="small"
                  onClick={() => {
                    forgive()
                    change({
                      fittingId: record.chain?.fittingId ?? '',
                      keepsTime: false,
                      takenAt: new Date().toISOString(),
                    })
                  }}
                >
                  {t('measure.thisChain')}
                </Button>
              )
            }
          >
            {t('measure.otherChain')}
          </Alert>
        )}
        {restored && (
          <Alert
            severity="info"
            icon={false}
            sx={{ py: 0, alignItems: 'center' }}
            action={
              <Button size="small" onClick={clear} sx={{ minHeight: 40 }}>
                {t('measure.discard')}
              </Button>
            }
          >
            {t('measure.restored')}
          </Alert>
        )}
        {isNew && !corrects && (
          <Typography variant="body2" sx={{ color: ink('brass'), fontWeight: 600 }}>
            {t('measure.baselineAsk')}
          </Typography>
        )}
        {wantsSpots(instrument.kind) && (
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
            colour={look?.colour ?? ink('edge')}
            named={draft.named}
            wanted={wanted > 0 ? t('measure.wanted', { count: wanted }) : t('measure.wantedNone')}
            spread={spread === null ? null : t('measure.spread', { percent: percent(spread) })}
            onPick={goTo}
          />
        )}
        {gauge && <GaugeStrip instrument={instrument} gauge={gauge} openedAt={openedAt} onTake={take} />}
        {instrument.kind === 'caliper' && (
          <ToggleButtonGroup
            exclusive
            fullWidth
            value={draft.mode}
            aria-label={t('measure.mode')}
            onChange={(_, mode: (typeof MODES)[number] | null) => mode !== null && change({ mode })}
          >
            {MODES.map((mode) => (
              <ToggleButton key={mode} value={mode} sx={{ lineHeight: 1.1, fontSize: 15 }}>
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
        {(instrument.kind === 'drop-in' || instrument.kind === 'three-contact') && (
          <MarksPad
            marks={instrument.marks ?? []}
            typed={spot.typed}
            onChange={(typed) => setSpot({ ...spot, typed })}
          />
        )}
        {instrument.kind === 'steel-rule' && (spot.picture !== null || WHOLE_MARK.test(spot.typed)) && (
          <PinPictures picture={spot.picture} onPick={(picture) => setSpot({ ...spot, picture })} />
        )}
        <OdometerField
          odometer={draft.odometer}
          reading={odometer}
          last={corrects ? null : record.lastOdometer}
          unit={unit}
          error={wrongIn('odometer.typed')}
          inputRef={odometerInput}
          onChange={(changed) => {
            forgive()
            change({ odometer: changed })
          }}
          onEnter={() => (corrects ? (complete(), reasonInput.current?.focus()) : save())}
          onAnswer={(answered) => {
            change({ odometer: answered })
            save(answered)
          }}
        />
        {corrects && (
          <TextField
            inputRef={reasonInput}
            label={t('bike.reason')}
            value={draft.reason}
            onChange={(event) => change({ reason: event.target.value })}
            helperText={wrongIn('reason') ? problemText(t, wrongIn('reason') ?? '') : t('bike.correctNote')}
            slotProps={{ htmlInput: { maxLength: 200 } }}
            onKeyDown={(event) => {
              if (event.key !== 'Enter') return
              event.preventDefault()
              save()
            }}
          />
        )}
        <HowTaken
          draft={draft}
          instrument={instrument}
          people={session.people}
          writer={session.person}
          preloadKg={assumed.measuring.preloadKg}
          isNew={isNew}
          onChange={change}
        />
        {refused && (elsewhere.length > 0 || refused.fields === undefined) && (
          <Alert severity="error" icon={false}>
            {elsewhere.length > 0
              ? elsewhere.map((field) => field.detail).join(' ')
              : problemText(t, refused.code, { requestId: refused.requestId })}
          </Alert>
        )}
        <KeyButton
          cap="Enter"
          variant="contained"
          size="large"
          disabled={saving}
          onClick={() => save()}
          sx={{ minHeight: 56 }}
        >
          {saving ? t('measure.saving') : t('measure.save')}
        </KeyButton>
        <Traps instrument={instrument} preloadKg={assumed.measuring.preloadKg} />
      </Stack>
      <LivePane
        record={record}
        instrument={instrument}
        live={live}
        anything={readyPlaces.length > 0 || (byHand && draft.signs !== null)}
        spots={spots}
        draft={draft}
        drawn={{ spot: draft.spots[drawnPlace]!, reading: spots[drawnPlace]! }}
        assumed={assumed}
        picture={forecast.picture}
        life={input?.life}
        whyOpen={whyOpen}
        onWhy={setWhyOpen}
      />
    </Box>
  )
}

import { CALIPER_MODES, DEFAULTS, KINDS, hangsWholeChain, measuresNothing, looksAtPlaces } from '@pelrin/core'
import { useCallback, useEffect, useMemo, useRef, useState } from 'react'
import { flushSync } from 'react-dom'
import { useNavigate, useSearchParams } from 'react-router'
import type { BikeRecord, Instrument, Reading } from '@pelrin/contract'
import { useGauge } from '../../api/useGauge.ts'
import { useSurroundings } from '../../app/surroundings.ts'
import { useTypedAhead } from '../../keys/typing.tsx'
import { useCommands } from '../../keys/useCommands.ts'
import { forecastInput } from '../../pieces/forecastInput.ts'
import { VERDICT_LOOK } from '../../pieces/verdictLook.ts'
import { ink } from '../../theme/theme.ts'
import { useForecast } from '../../workers/useForecast.ts'
import { useDraft, type DraftSpot } from './draft.ts'
import { assumedFor, liveInput, liveVerdict, readOdometer, readRound, type SpotReading } from './evaluate.ts'
import { celsiusWrong, preloadWrong } from './HowTaken.tsx'
import { spreadOf } from './labels.ts'
import { useSaving } from './useSaving.ts'

const LAST_INSTRUMENT = 'pelrin-last-instrument'

/** What is measured on which bike; a reading that is corrected, where one is. */
export interface BenchProps {
  readonly record: BikeRecord
  readonly instruments: readonly Instrument[]
  readonly corrects: Reading | null
}

/** A round of readings as it is typed: how each is read, what it comes to, where the next key goes, and how it is saved. */
export function useMeasureBench({ record, instruments, corrects }: BenchProps) {
  const navigate = useNavigate()
  const toJob = useSearchParams()[0].get('back') === 'job'
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
  const byHand = measuresNothing(instrument.kind)
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
    clearRefusal,
    wrongAt,
    wrongIn,
    elsewhere,
  } = useSaving(record, corrects?.id ?? null, unit)
  const spot = draft.spots[place]!
  const reading = spots[place]!
  const typedPlaces = spots.flatMap((one, i) => (one.state === 'empty' ? [] : [i]))
  const readyPlaces = spots.flatMap((one, i) => (one.state === 'ready' ? [i] : []))

  const setSpot = (changed: DraftSpot): void => {
    clearRefusal()
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
    void navigate(toJob ? `/bikes/${bikeId}/job` : corrects ? `/bikes/${bikeId}` : `/?bike=${bikeId}`, {
      flushSync: true,
    })
  }, [navigate, toJob, corrects, bikeId])
  // A dialog that is open takes its own Escape.
  useCommands('measure', {
    jump: looksAtPlaces(instrument.kind) ? (digit) => goTo(digit - 1) : null,
    mode:
      KINDS[instrument.kind].jaws === true
        ? () =>
            change((before) => ({
              mode: CALIPER_MODES[(CALIPER_MODES.indexOf(before.mode) + 1) % CALIPER_MODES.length]!,
            }))
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
      clearRefusal()
      change((before) => ({
        spots: before.spots.map((old, i) => (i === at ? { ...old, typed: percentShown.toFixed(2) } : old)),
      }))
      const next = draft.spots.findIndex((one, i) => i > at && one.typed.trim() === '')
      goTo(next < 0 ? at : next)
    },
  )

  const choose = (id: string): void => {
    clearRefusal()
    // Drawn at once: what is focused next belongs to it.
    flushSync(() => change({ instrumentId: id }))
    // A whole chain is read at one place, which is the first.
    const taken = instruments.find((one) => one.id === id)
    if (taken && hangsWholeChain(taken.kind)) setPlace(0)
  }
  const goOn = (from: SpotReading): void => {
    const next = draft.spots.findIndex((one, i) => i > place && one.typed.trim() === '')
    if (from.state === 'ready' && looksAtPlaces(instrument.kind) && next >= 0) goTo(next)
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
  return {
    record,
    instruments,
    corrects,
    session,
    draft,
    restored,
    change,
    clear,
    clearRefusal,
    instrument,
    byHand,
    assumed,
    spots,
    spot,
    reading,
    place,
    setSpot,
    goTo,
    goOn,
    choose,
    focusEntry,
    unit,
    odometer,
    spotInput,
    odometerInput,
    reasonInput,
    gauge,
    take,
    openedAt,
    complete,
    save,
    saving,
    refused,
    wrongAt,
    wrongIn,
    elsewhere,
    isNew,
    live,
    life: input?.life,
    picture: forecast.picture,
    worstPlace,
    worstColour: look?.colour ?? ink('edge'),
    drawnPlace,
    wanted,
    spread,
    anything: readyPlaces.length > 0 || (byHand && draft.signs !== null),
    whyOpen,
    setWhyOpen,
  }
}
export type Bench = ReturnType<typeof useMeasureBench>
